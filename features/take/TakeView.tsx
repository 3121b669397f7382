import { ClipboardPaste, FolderOpen, MonitorUp, Sprout } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import { warmUp } from '../pictures/pictures';
import { Thread } from '../shell/Thread';
import { classes } from '../ui/classes';
import { useKey } from '../ui/useKeys';
import { Chooser } from './Chooser';
import { Countdown } from './Countdown';
import { DeskStage } from './DeskStage';
import { LastTaken } from './LastTaken';
import { ScreenStage } from './ScreenStage';
import { readSettings, useSettings, changeSettings } from './settingsStore';
import { bringIn, filesIn } from './sources/files';
import { TakePanel } from './TakePanel';
import { cancelTake, confirmTake, startTake, useTake } from './takeStore';

export function TakeView() {
  const phase = useTake((s) => s.phase);
  const source = useTake((s) => s.source);
  const picker = useRef<HTMLInputElement>(null);
  const openInMark = useSettings((s) => s.settings.thenMark);
  useEffect(() => {
    document.title = 'Take – Rezzik';
    void readSettings();
    warmUp();
    return cancelTake;
  }, []);
  useBringing(openInMark);
  const ready = phase.name === 'ready';
  useKey('enter', startTake, { enabled: ready });
  useKey('1', () => changeSettings({ kind: 'full' }), { enabled: ready });
  useKey('3', () => changeSettings({ kind: 'region' }), { enabled: ready });
  useKey('escape', cancelTake, { enabled: !ready, inFields: true });
  return (
    <>
      <Thread
        step="take"
        middle={
          <div role="group" aria-label="Sources" className="flex gap-2">
            <SourceChip
              name="desk"
              icon={<Sprout size={16} strokeWidth={1.75} />}
              label="Practice desk"
            />
            <SourceChip
              name="screen"
              icon={<MonitorUp size={16} strokeWidth={1.75} />}
              label="Shared screen"
            />
            <Chip
              icon={<FolderOpen size={16} strokeWidth={1.75} />}
              label="Open a picture"
              onClick={() => picker.current?.click()}
            />
            <span className="hidden items-center gap-1.5 text-[13px] text-soft xl:flex">
              <ClipboardPaste size={15} strokeWidth={1.75} aria-hidden /> or paste or drop one
            </span>
            <input
              ref={picker}
              type="file"
              multiple
              accept="image/*"
              aria-label="Pictures to open"
              className="sr-only"
              tabIndex={-1}
              onChange={(event) => {
                void bringIn([...(event.target.files ?? [])], 'opened', openInMark);
                event.target.value = '';
              }}
            />
          </div>
        }
      />
      <main className="flex min-h-0 grow">
        <TakePanel />
        <section aria-label="Source" className="relative flex min-w-0 grow flex-col bg-desk p-4">
          {phase.name === 'leaving' ? null : phase.name === 'choosing' ? (
            <Chooser
              stilled={phase.stilled}
              onTake={(region) => confirmTake(phase.stilled, phase.png, region)}
              onCancel={cancelTake}
            />
          ) : (
            <>
              {source === 'desk' ? <DeskStage /> : <ScreenStage />}
              <LastTaken />
            </>
          )}
          <Countdown />
        </section>
      </main>
    </>
  );
}

/** Pictures pasted or dropped anywhere on the view become shots. */
function useBringing(openInMark: boolean): void {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = filesIn(event.clipboardData);
      if (files.length === 0 && event.target instanceof HTMLInputElement) return;
      event.preventDefault();
      void bringIn(files, 'pasted', openInMark);
    };
    const over = (event: DragEvent) => event.preventDefault();
    const drop = (event: DragEvent) => {
      event.preventDefault();
      void bringIn(filesIn(event.dataTransfer), 'dropped', openInMark);
    };
    document.addEventListener('paste', paste);
    document.addEventListener('dragover', over);
    document.addEventListener('drop', drop);
    return () => {
      document.removeEventListener('paste', paste);
      document.removeEventListener('dragover', over);
      document.removeEventListener('drop', drop);
    };
  }, [openInMark]);
}

function SourceChip({
  name,
  label,
  icon,
}: {
  name: 'desk' | 'screen';
  label: string;
  icon: ReactNode;
}) {
  const current = useTake((s) => s.source) === name;
  const choose = () => {
    cancelTake();
    useTake.setState({ source: name, problem: null });
  };
  return <Chip label={label} icon={icon} current={current} onClick={choose} />;
}

interface ChipProps {
  label: string;
  icon: ReactNode;
  current?: boolean;
  onClick: () => void;
}

function Chip({ label, icon, current, onClick }: ChipProps) {
  return (
    <button
      type="button"
      aria-pressed={current}
      onClick={onClick}
      className={classes(
        'inline-flex h-8 items-center gap-2 rounded-full border px-3 whitespace-nowrap hover:bg-tint',
        current ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card',
      )}
    >
      {icon}
      {label}
    </button>
  );
}
