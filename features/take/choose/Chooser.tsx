import { useEffect, useRef, useState } from 'react';
import { isOnStill, type Kind } from '@/core/contracts/way';
import { isLong } from '@/core/geometry/size';
import { withDescribed, type Part } from '@/core/screen/parts/described';
import { findPartsIn } from '../../pictures/parts';
import { Problem } from '../../ui/Problem';
import { chosenLook, classes } from '../../ui/classes';
import { Key } from '../../ui/Key';
import { Item, Row } from '../../ui/Row';
import { keyLabel, useAction, useKeyOf } from '../../keys/useAction';
import type { ActionName } from '../../keys/actions';
import { kinds } from '../kinds';
import { useTake, type Choosing } from '../takeState';
import { changeKind } from '../takeStore';
import type { Stilled } from '../sources/contract';
import { AskThen } from './AskThen';
import { PartMode } from './PartMode';
import { ColourMode, MeasureMode } from './ReadMode';
import { RegionMode } from './RegionMode';
import { ShapeMode } from './ShapeMode';
import { WindowMode } from './WindowMode';

type Reading = 'colour' | 'measure' | null;

/** The parts of a picture, found and asked for while it is looked at; null until then. */
function useParts({ picture, described }: Stilled): readonly Part[] | null {
  const [found, setFound] = useState<{ of: ImageBitmap; parts: Part[] } | null>(null);
  useEffect(() => {
    let current = true;
    const asked = described?.().catch(() => []);
    void findPartsIn(picture)
      .catch(() => [])
      .then(async (seen) => {
        if (current) setFound({ of: picture, parts: seen });
        const told = await asked;
        if (!current || !told?.length) return;
        setFound({ of: picture, parts: withDescribed(seen, told, picture) });
      });
    return () => {
      current = false;
    };
  }, [picture, described]);
  return found?.of === picture ? found.parts : null;
}

const hints: Record<Kind, string> = {
  full: '',
  repeat: '',
  long: '',
  series: '',
  back: '',
  clip: '',
  window: 'Point at a window, press Tab, or type its name.',
  region: 'Drag over the part you want, or press an arrow key.',
  shape: '',
  part: 'Point at a button, row or panel; the wheel or ↑ ↓ go out and in.',
};

const hintOf = ({ kind, stilled }: Choosing): string =>
  kind === 'part' && isLong(stilled.picture)
    ? 'Point at a button, row or panel; ↑ ↓ go out and in, the wheel goes on.'
    : hints[kind];

/** Choosing on the stilled picture: nothing on it can close or change any more. */
export function Chooser({ choosing }: { choosing: Choosing }) {
  const { kind, stilled, chosen } = choosing;
  const [reading, setReading] = useState<Reading>(null);
  const parts = useParts(stilled);
  const problem = useTake((s) => s.problem);
  const surface = useRef<HTMLDivElement>(null);
  useEffect(() => surface.current?.focus(), []);
  const hint = reading === 'colour' ? 'Click a pixel to copy its colour.' : hintOf(choosing);
  return (
    <div
      ref={surface}
      tabIndex={-1}
      data-home
      role="group"
      aria-label="Choose on the stilled picture"
      className="flex min-h-0 grow flex-col outline-none"
    >
      <div className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="font-name text-lg">
          {chosen
            ? 'What with it?'
            : choosing.way.kind === 'clip'
              ? 'What is recorded?'
              : 'The picture is still'}
        </h1>
        {!chosen && <p className="text-soft">{hint}</p>}
        {!chosen && <Kinds kind={kind} reading={reading} read={setReading} />}
      </div>
      {problem && <Problem>{problem}</Problem>}
      {chosen ? (
        <AskThen choosing={choosing} />
      ) : reading === 'colour' ? (
        <ColourMode choosing={choosing} />
      ) : reading === 'measure' ? (
        <MeasureMode choosing={choosing} />
      ) : kind === 'window' ? (
        <WindowMode choosing={choosing} parts={parts ?? []} />
      ) : kind === 'shape' ? (
        <ShapeMode choosing={choosing} parts={parts ?? []} />
      ) : kind === 'part' ? (
        <PartMode choosing={choosing} parts={parts} />
      ) : (
        <RegionMode choosing={choosing} parts={parts ?? []} />
      )}
    </div>
  );
}

interface KindsProps {
  kind: Kind;
  reading: Reading;
  read: (reading: Reading) => void;
}

/** The kind can still be changed, and a colour or distance read, on the picture that is still. */
function Kinds({ kind, reading, read }: KindsProps) {
  const turn = (to: Kind) => {
    read(null);
    changeKind(to);
  };
  return (
    <Row label="What to take" className="ml-auto flex flex-wrap gap-1.5">
      {kinds
        .filter(({ name }) => isOnStill(name))
        .map(({ name, label, action }) => (
          <Chip
            key={name}
            label={label}
            action={action}
            on={!reading && name === kind}
            act={() => turn(name)}
          />
        ))}
      <Chip
        label="Pick colour"
        action="still.colour"
        on={reading === 'colour'}
        act={() => read(reading === 'colour' ? null : 'colour')}
      />
      <Chip
        label="Measure"
        action="still.measure"
        on={reading === 'measure'}
        act={() => read(reading === 'measure' ? null : 'measure')}
      />
    </Row>
  );
}

function Chip(props: { label: string; action: ActionName; on: boolean; act: () => void }) {
  const { label, action, on, act } = props;
  useAction(action, act);
  const key = useKeyOf(action);
  return (
    <Item>
      <button
        type="button"
        aria-pressed={on}
        aria-keyshortcuts={key}
        onClick={act}
        className={classes(
          'inline-flex h-7 items-center gap-1.5 rounded-full border px-2.5 text-[13px]',
          chosenLook(on),
        )}
      >
        {label}
        {key && <Key>{keyLabel(key)}</Key>}
      </button>
    </Item>
  );
}
