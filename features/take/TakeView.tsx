import { Camera, ClipboardPaste, Computer, FolderOpen, MonitorUp, Sprout } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import type { TakenFrom } from '@/core/contracts/way';
import { useAction } from '../keys/useAction';
import { warmUp } from '../pictures/pictures';
import { Thread } from '../shell/Thread';
import { classes } from '../ui/classes';
import { useKey } from '../ui/useKeys';
import { CameraStage } from './CameraStage';
import { Chooser } from './choose/Chooser';
import { Countdown } from './Countdown';
import { DeskStage } from './DeskStage';
import { DisplayStage } from './DisplayStage';
import { LastTaken } from './LastTaken';
import { Routines } from './Routines';
import { ScreenStage } from './ScreenStage';
import { changeWay, readSettings, useSettings } from './settingsStore';
import { bringIn, filesIn } from './sources/files';
import { TakePanel } from './TakePanel';
import { useLaunch } from './useLaunch';
import { cancelTake, startTake, useTake } from './takeStore';

const icon = { size: 16, strokeWidth: 1.75, className: 'shrink-0' };

const chips: { name: TakenFrom; label: string; icon: ReactNode }[] = [
  { name: 'desk', label: 'Practice desk', icon: <Sprout {...icon} /> },
  { name: 'display', label: 'This computer', icon: <Computer {...icon} /> },
  { name: 'screen', label: 'Shared screen', icon: <MonitorUp {...icon} /> },
  { name: 'camera', label: 'Camera', icon: <Camera {...icon} /> },
];

const stages: Record<TakenFrom, () => ReactNode> = {
  desk: DeskStage,
  display: DisplayStage,
  screen: ScreenStage,
  camera: CameraStage,
};

export function TakeView() {
  const phase = useTake((s) => s.phase);
  const { source, then } = useSettings((s) => s.settings.way);
  const picker = useRef<HTMLInputElement>(null);
  const openInMark = then.some((step) => step.do === 'mark');
  useEffect(() => {
    document.title = 'Take – Rezzik';
    void readSettings();
    warmUp();
    return cancelTake;
  }, []);
  useBringing(openInMark);
  useLaunch();
  const ready = phase.name === 'ready';
  useAction('take.start', () => startTake(), { enabled: ready });
  useKey('escape', cancelTake, { enabled: !ready, inFields: true });
  const Stage = stages[source];
  return (
    <>
      <Thread
        step="take"
        middle={
          <div role="group" aria-label="Sources" className="flex min-w-0 gap-2">
            {chips.map((chip) => (
              <SourceChip key={chip.name} {...chip} />
            ))}
            <Chip
              icon={<FolderOpen {...icon} />}
              label="Open a picture"
              onClick={() => picker.current?.click()}
            />
            <span className="hidden items-center gap-1.5 text-[13px] text-soft 2xl:flex">
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
            <Chooser choosing={phase} />
          ) : (
            <>
              <Stage />
              <Routines />
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

function SourceChip({ name, label, icon }: { name: TakenFrom; label: string; icon: ReactNode }) {
  const current = useSettings((s) => s.settings.way.source) === name;
  const choose = () => {
    cancelTake();
    useTake.setState({ problem: null });
    changeWay({ source: name });
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
      title={label}
      className={classes(
        'inline-flex h-8 min-w-9 items-center gap-2 rounded-full border px-2.5 whitespace-nowrap hover:bg-tint',
        current ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card',
      )}
    >
      {icon}
      <span className={classes('truncate', !current && 'max-[1180px]:sr-only')}>{label}</span>
    </button>
  );
}
