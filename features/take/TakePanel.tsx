import { PictureInPicture2 } from 'lucide-react';
import { useEffect, useReducer, useState } from 'react';
import { limits } from '@/core/values/limits';
import type { Kind } from '@/core/contracts/way';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { openSmall } from '../small/smallWindow';
import { Button } from '../ui/Button';
import { ChipRadios } from '../ui/ChipRadios';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { Key } from '../ui/Key';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Radio, Radios } from '../ui/Radios';
import { Toggle } from '../ui/Toggle';
import { ago } from '../ui/format';
import { kindFacts, kinds, type KindFacts } from './kinds';
import { changeSettings, changeWay, useSettings } from '../settings/settingsStore';
import type { Abilities } from './sources/contract';
import { sources } from './sources/list';
import { useTake } from './takeState';
import { cancelTake, changeKind, takeOrEnd } from './takeStore';
import { useRecording } from './clip/state';
import { KindOptions } from './KindOptions';
import { takeMoments } from './several';
import { Then } from './Then';

const offeredDelays = [0, 1, 2, 3, 5, 10];
const OWN = 'own';
const delays = [
  ...offeredDelays.map((seconds) => ({
    ...{ value: String(seconds), label: String(seconds), called: `${seconds} s` },
  })),
  { value: OWN, label: '…', called: 'Own delay' },
];

/** The left column: what is taken, when, and what then. */
export function TakePanel() {
  const { kind, inUse, source } = useSettings((s) => s.settings.way);
  const phase = useTake((s) => s.phase);
  const problem = useTake((s) => s.problem);
  const startKey = useKeyOf('take.start');
  const recording = useRecording((s) => s.now);
  const isEnding = recording?.ending === true && kind === 'clip';
  return (
    <aside
      aria-label="How to take"
      className="flex w-[270px] shrink-0 flex-col-reverse border-r border-line bg-paper"
    >
      {/* Last for the eyes, first for the Tab key: the next step is near the start. */}
      <div className="flex flex-col-reverse gap-2 p-3">
        {phase.name === 'ready' ? (
          <div className="flex gap-2">
            <Button
              look="next"
              hint={keyLabel(startKey)}
              className="h-12 min-w-0 grow px-2 text-base leading-5 !whitespace-normal"
              disabled={isEnding}
              onClick={takeOrEnd}
            >
              {recording && kind === 'clip'
                ? 'End the clip'
                : kind === 'window' && inUse
                  ? 'Take the window in use'
                  : (kind === 'full' && sources[source].full?.take) || kindFacts(kind).take}
            </Button>
            <IconButton
              label="Small control"
              className="!size-12 border border-edge bg-card"
              onClick={() => void openSmall()}
            >
              <PictureInPicture2 size={20} strokeWidth={1.75} />
            </IconButton>
          </div>
        ) : (
          <Button hint="Esc" className="h-12 text-base" onClick={cancelTake}>
            Stop this take
          </Button>
        )}
        {problem && phase.name !== 'choosing' && <Problem>{problem}</Problem>}
      </div>
      <div className="min-h-0 grow [scrollbar-width:thin] overflow-auto p-3">
        <div className="border-b border-line pb-3">
          <Kinds />
          <KindOptions />
        </div>
        {/* A series says all of that for itself. */}
        {kind !== 'series' && (
          <>
            <Delay />
            <Pointer />
            {/* A clip opens in a view of its own. */}
            {kind !== 'clip' && <Then />}
          </>
        )}
      </div>
    </aside>
  );
}

/** What a key or a click on a kind does: chosen beforehand, or on the picture that is still. */
function useKind() {
  const kind = useSettings((s) => s.settings.way.kind);
  const phase = useTake((s) => s.phase);
  const choosing = phase.name === 'choosing' && !phase.chosen;
  const film = phase.name === 'film';
  const choose = (to: Kind) => {
    if (film) void takeMoments(to);
    else if (choosing) changeKind(to);
    else changeWay({ kind: to });
  };
  return { current: film ? 'back' : choosing ? phase.kind : kind, choose };
}

function Kinds() {
  const { current, choose } = useKind();
  return (
    <Radios label="What to take" value={current} className="flex flex-col" onChange={choose}>
      {kinds.map((facts) => (
        <KindChoice key={facts.name} facts={facts} />
      ))}
    </Radios>
  );
}

/** What the source can do now: of this computer's screen that is known once it was asked. */
function useAbilities(): Abilities {
  const source = sources[useSettings((s) => s.settings.way.source)];
  const [, again] = useReducer((times: number) => times + 1, 0);
  useEffect(() => source.changes?.(again), [source]);
  return source.can;
}

/** What a source must be able to do for a kind. */
const abilityOf: Partial<Record<Kind, Exclude<keyof Abilities, 'pointer' | 'sounds'>>> = {
  ...{ window: 'windows', long: 'long', series: 'series', back: 'back', clip: 'clip' },
};

function KindChoice({ facts }: { facts: KindFacts }) {
  const { name, label, note, icon: Icon, action } = facts;
  const way = useSettings((s) => s.settings.way);
  const last = useSettings((s) => s.settings.regions[way.source]);
  const ready = useTake((s) => s.phase.name === 'ready' || s.phase.name === 'film');
  const kind = useKind();
  const can = useAbilities();
  const current = kind.current === name;
  const ability = abilityOf[name];
  const cannot = ability ? can[ability] : true;
  const key = useKeyOf(action);
  useAction(action, () => kind.choose(name), { enabled: ready && cannot === true });
  const words =
    cannot !== true
      ? cannot
      : name === 'repeat'
        ? last
          ? `${last.region.width} × ${last.region.height}, ${ago(last.at)}`
          : 'Nothing taken from here yet'
        : (name === 'full' && sources[way.source].full?.note) || note;
  return (
    <Radio
      value={name}
      shortcut={key}
      disabled={cannot !== true}
      title={cannot === true ? undefined : cannot}
      className={classes(
        'flex items-center gap-3 rounded-[7px] px-3 py-px text-left leading-[17px] disabled:text-faint',
        current ? 'bg-ink text-on-ink' : 'enabled:hover:bg-tint',
      )}
    >
      <Icon size={20} strokeWidth={1.75} className="shrink-0" aria-hidden />
      <span className="min-w-0 grow">
        <span className="block font-bold">{label}</span>
        <span
          className={classes('block truncate text-[13px]', current ? 'text-on-ink' : 'text-soft')}
        >
          {words}
        </span>
      </span>
      {key && <Key>{keyLabel(key)}</Key>}
    </Radio>
  );
}

function Pointer() {
  const { pointer, kind } = useSettings((s) => s.settings.way);
  const isClip = kind === 'clip';
  const can = useAbilities().pointer;
  const not = typeof can === 'object' && 'not' in can ? can.not : null;
  const asked = typeof can === 'object' && 'asked' in can ? can : null;
  return (
    <section className="border-b border-line py-2">
      <Toggle
        label="Pointer"
        note={not ?? asked?.asked ?? (isClip ? 'Drawn into the clip' : 'As a piece you can move')}
        checked={!not && pointer}
        disabled={Boolean(not)}
        onChange={(on) => {
          changeWay({ pointer: on });
          void asked?.ask(on);
        }}
      />
    </section>
  );
}

function Delay() {
  const delay = useSettings((s) => s.settings.way.delay);
  const stays = useSettings((s) => s.settings.delayStays);
  const [own, setOwn] = useState(false);
  const isOwn = own || !offeredDelays.includes(delay);
  return (
    <section className="border-b border-line py-3">
      <h2
        className="mb-2 flex justify-between font-bold"
        title="Time to open a menu or hold a key. Then the picture is still, and nothing on it can close."
      >
        Delay <span className="font-measure text-[13px] font-normal text-soft">{delay} s</span>
      </h2>
      <ChipRadios
        label="Delay in seconds"
        value={isOwn ? OWN : String(delay)}
        options={delays}
        onChange={(chosen) => {
          setOwn(chosen === OWN);
          if (chosen !== OWN) changeWay({ delay: Number(chosen) });
        }}
      />
      {isOwn && (
        <div className="mt-2">
          <NumberInput
            label="Seconds, up to 60"
            // What is typed next is this number.
            autoFocus={own}
            value={delay}
            min={0}
            max={limits.delay}
            onCommit={(value) => changeWay({ delay: value })}
          />
        </div>
      )}
      {delay > 0 && (
        <Toggle
          label="Stays for the next takes"
          checked={stays}
          onChange={(on) => changeSettings({ delayStays: on })}
        />
      )}
    </section>
  );
}
