import {
  Aperture,
  Copy,
  FolderDown,
  Monitor,
  PencilLine,
  SquareDashedMousePointer,
} from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import { limits } from '@/core/contracts/limits';
import type { Folder } from '@/core/contracts/folder';
import { api } from '../api/client';
import { followLink } from '../shell/navigate';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { Key } from '../ui/Key';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { changeSettings, useSettings } from './settingsStore';
import { cancelTake, startTake, useTake } from './takeStore';

const offeredDelays = [0, 1, 2, 3, 5, 10];

/** The left column: what is taken, when, and what then. */
export function TakePanel() {
  const { kind } = useSettings((s) => s.settings);
  const phase = useTake((s) => s.phase);
  const problem = useTake((s) => s.problem);
  return (
    <aside
      aria-label="How to take"
      className="flex w-[270px] shrink-0 flex-col border-r border-line bg-paper"
    >
      <div className="min-h-0 grow overflow-auto p-3">
        <div
          role="radiogroup"
          aria-label="What to take"
          className="flex flex-col gap-1 border-b border-line pb-3"
        >
          <Kind
            name="full"
            hint="1"
            label="Full screen"
            note="A display, or all of them"
            icon={<Monitor size={20} strokeWidth={1.75} />}
          />
          <Kind
            name="region"
            hint="3"
            label="Region"
            note="Drag it on the stilled picture"
            icon={<SquareDashedMousePointer size={20} strokeWidth={1.75} />}
          />
        </div>
        <Delay />
        <Then />
      </div>
      <div className="flex flex-col gap-2 p-3">
        {problem && <Problem>{problem}</Problem>}
        {phase.name === 'ready' ? (
          <Button
            look="next"
            hint="Enter"
            className="h-12 text-base"
            icon={<Aperture size={20} strokeWidth={1.75} />}
            onClick={startTake}
          >
            {kind === 'full' ? 'Take the screen' : 'Take a region'}
          </Button>
        ) : (
          <Button hint="Esc" className="h-12 text-base" onClick={cancelTake}>
            Stop this take
          </Button>
        )}
      </div>
    </aside>
  );
}

interface KindProps {
  name: 'full' | 'region';
  hint: string;
  label: string;
  note: string;
  icon: ReactNode;
}

function Kind({ name, hint, label, note, icon }: KindProps) {
  const current = useSettings((s) => s.settings.kind) === name;
  return (
    <button
      type="button"
      role="radio"
      aria-checked={current}
      aria-keyshortcuts={hint}
      onClick={() => changeSettings({ kind: name })}
      className={classes(
        'flex items-center gap-3 rounded-[7px] px-3 py-2 text-left',
        current ? 'bg-ink text-on-ink' : 'hover:bg-tint',
      )}
    >
      {icon}
      <span className="grow">
        <span className="block font-bold">{label}</span>
        <span className={classes('block text-[13px]', current ? 'text-on-ink' : 'text-soft')}>
          {note}
        </span>
      </span>
      <Key>{hint}</Key>
    </button>
  );
}

function Delay() {
  const delay = useSettings((s) => s.settings.delay);
  const [own, setOwn] = useState(false);
  const isOwn = own || !offeredDelays.includes(delay);
  const chip = (chosen: boolean) =>
    classes(
      'grid h-7 min-w-7 place-items-center rounded-full border px-2 font-measure text-[13px]',
      chosen ? 'border-petrol bg-tint font-bold text-petrol' : 'border-edge bg-card hover:bg-tint',
    );
  return (
    <section className="border-b border-line py-3">
      <h2 className="mb-2 flex justify-between font-bold">
        Delay <span className="font-measure text-[13px] font-normal text-soft">{delay} s</span>
      </h2>
      <div role="radiogroup" aria-label="Delay in seconds" className="flex flex-wrap gap-1.5">
        {offeredDelays.map((seconds) => (
          <button
            key={seconds}
            type="button"
            aria-label={`${seconds} s`}
            role="radio"
            aria-checked={!isOwn && delay === seconds}
            className={chip(!isOwn && delay === seconds)}
            onClick={() => {
              setOwn(false);
              changeSettings({ delay: seconds });
            }}
          >
            {seconds}
          </button>
        ))}
        <button
          type="button"
          aria-label="Own delay"
          role="radio"
          aria-checked={isOwn}
          className={chip(isOwn)}
          onClick={() => setOwn(true)}
        >
          …
        </button>
      </div>
      {isOwn && (
        <div className="mt-2">
          <NumberInput
            label="Seconds, up to 60"
            value={delay}
            min={0}
            max={limits.delay}
            onCommit={(value) => changeSettings({ delay: value })}
          />
        </div>
      )}
      <p className="mt-2 text-[13px] text-soft">
        Time to open a menu or hold a key. Then the picture is still, and nothing on it can close.
      </p>
    </section>
  );
}

function Then() {
  const { thenMark, thenCopy, thenKeep } = useSettings((s) => s.settings);
  const [folder, setFolder] = useState<Folder | null | undefined>(undefined);
  useEffect(() => {
    void api
      .folders()
      .then(({ folders }) => setFolder(folders.find((f) => f.isDefault) ?? null))
      .catch(() => undefined);
  }, []);
  return (
    <section className="py-3">
      <h2 className="mb-2 font-bold">Then</h2>
      <div role="group" aria-label="Then" className="flex flex-wrap gap-1.5">
        <Choice
          label="Copy"
          on={thenCopy}
          icon={<Copy size={16} strokeWidth={1.75} />}
          onChange={(on) => changeSettings({ thenCopy: on })}
        />
        <Choice
          label="Mark"
          on={thenMark}
          icon={<PencilLine size={16} strokeWidth={1.75} />}
          onChange={(on) => changeSettings({ thenMark: on })}
        />
        {folder && (
          <Choice
            label={`Keep in ${folder.name}`}
            on={thenKeep}
            icon={<FolderDown size={16} strokeWidth={1.75} />}
            onChange={(on) => changeSettings({ thenKeep: on })}
          />
        )}
      </div>
      {folder === null && (
        <p className="mt-2 text-[13px] text-soft">
          <a href="/setup/folders" onClick={followLink} className="text-petrol underline">
            Set up a folder
          </a>{' '}
          to keep copies in it straight away.
        </p>
      )}
    </section>
  );
}

function Choice(props: {
  label: string;
  on: boolean;
  icon: ReactNode;
  onChange: (on: boolean) => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={props.on}
      onClick={() => props.onChange(!props.on)}
      className={classes(
        'inline-flex h-7 max-w-full items-center gap-1.5 rounded-full border px-2.5',
        props.on ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card hover:bg-tint',
      )}
    >
      {props.icon}
      <span className="truncate">{props.label}</span>
    </button>
  );
}
