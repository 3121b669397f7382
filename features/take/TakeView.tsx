import { ClipboardPaste, FolderOpen } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { messageOf } from '../api/ask';
import { useAction } from '../keys/useAction';
import { warmUp } from '../pictures/pictures';
import { notify } from '../notices/noticeStore';
import { Thread } from '../thread/Thread';
import { Row } from '../ui/Row';
import { useKey } from '../keys/useKey';
import { BackView } from './back/BackView';
import { useBack } from './back/backState';
import { leaveSource } from './back/hold';
import { Chip } from './Chip';
import { Chooser } from './choose/Chooser';
import { Countdown } from './Countdown';
import { LastTaken } from './LastTaken';
import { LeftBehind } from './long/LeftBehind';
import { LongView } from './long/LongView';
import { PhoneChip } from './phone/PhoneChip';
import { Routines } from './Routines';
import { changeWay, readSettings, useSettings } from '../settings/settingsStore';
import { filmsAccepted } from './clip/opened';
import { bringIn, clipboardFiles, filesIn } from './files';
import type { Source } from './sources/contract';
import { sources } from './sources/list';
import { SheetChip } from './SheetChip';
import { TakePanel } from './TakePanel';
import { useLaunch } from './useLaunch';
import { useTake } from './takeState';
import { cancelTake, dropTake, takeOrEnd } from './takeStore';
import { Recording } from './clip/Recording';
import { useRecording } from './clip/state';

const icon = { size: 16, strokeWidth: 1.75, className: 'shrink-0' };

export function TakeView() {
  const phase = useTake((s) => s.phase);
  const film = useBack((s) => s.film);
  const { source, then } = useSettings((s) => s.settings.way);
  const picker = useRef<HTMLInputElement>(null);
  const openInMark = then.some((step) => step.do === 'mark');
  useEffect(() => {
    document.title = 'Take – Rezzik';
    void readSettings();
    warmUp();
    return dropTake;
  }, []);
  const dragged = useBringing(openInMark);
  useLaunch();
  const ready = phase.name === 'ready';
  const recording = useRecording((s) => s.now !== null);
  useAction('take.start', takeOrEnd, { enabled: ready });
  useKey('escape', cancelTake, { enabled: !ready });
  const taking = phase.name === 'stilling' ? phase.way?.source : undefined;
  const { Live } = sources[taking ?? source];
  return (
    <>
      <Thread
        step="take"
        middle={
          <Row label="Sources" className="flex min-w-0 gap-2 max-[1439px]:gap-1">
            {Object.values(sources).map((one) => (
              <SourceChip key={one.name} source={one} />
            ))}
            <Chip
              icon={<FolderOpen {...icon} />}
              label="Open a file"
              onClick={() => picker.current?.click()}
            />
            <Chip
              icon={<ClipboardPaste {...icon} />}
              label="Paste"
              onClick={() => void pasteIn(openInMark)}
            />
            <SheetChip />
            <PhoneChip openInMark={openInMark} />
            <input
              ref={picker}
              type="file"
              multiple
              accept={`image/*,${filmsAccepted}`}
              aria-label="Pictures and films to open"
              className="sr-only"
              tabIndex={-1}
              onChange={(event) => {
                void bringIn([...(event.target.files ?? [])], 'opened', openInMark);
                event.target.value = '';
              }}
            />
          </Row>
        }
      />
      <main className="flex min-h-0 grow">
        <TakePanel />
        <section
          aria-label="Source"
          data-home
          tabIndex={-1}
          className="relative flex min-w-0 grow flex-col bg-desk p-4 outline-none"
        >
          {phase.name === 'leaving' ? null : phase.name === 'choosing' ? (
            <Chooser choosing={phase} />
          ) : phase.name === 'film' && film ? (
            <BackView film={film} />
          ) : phase.name === 'watching' ? (
            <LongView way={phase.way} />
          ) : (
            <>
              <Live {...(ready ? { take: takeOrEnd } : { stop: cancelTake })} />
              <LeftBehind />
              {recording ? (
                <Recording />
              ) : (
                <>
                  <Routines />
                  <LastTaken />
                </>
              )}
            </>
          )}
          <Countdown />
          {dragged && <DropHere />}
        </section>
      </main>
    </>
  );
}

async function pasteIn(openInMark: boolean): Promise<void> {
  try {
    await bringIn(await clipboardFiles(), 'pasted', openInMark);
  } catch (error) {
    notify({ key: 'paste', tone: 'bad', title: 'Nothing was pasted', lines: [messageOf(error)] });
  }
}

/**
 * Pictures and films pasted or dropped anywhere on the view become shots.
 * @returns whether something is being dragged over the view
 */
function useBringing(openInMark: boolean): boolean {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = filesIn(event.clipboardData);
      if (files.length === 0 && event.target instanceof HTMLInputElement) return;
      event.preventDefault();
      void bringIn(files, 'pasted', openInMark);
    };
    const drag = (event: DragEvent) => {
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => event.relatedTarget === null && setOver(false);
    const drop = (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      void bringIn(filesIn(event.dataTransfer), 'dropped', openInMark);
    };
    document.addEventListener('paste', paste);
    document.addEventListener('dragover', drag);
    document.addEventListener('dragleave', leave);
    document.addEventListener('drop', drop);
    return () => {
      document.removeEventListener('paste', paste);
      document.removeEventListener('dragover', drag);
      document.removeEventListener('dragleave', leave);
      document.removeEventListener('drop', drop);
    };
  }, [openInMark]);
  return over;
}

const DropHere = () => (
  <p
    role="status"
    className="pointer-events-none absolute inset-2 grid place-content-center rounded-[9px] border-2 border-dashed border-petrol bg-card/80 font-name text-lg"
  >
    Drop the picture or film here
  </p>
);

function SourceChip({ source: { name, label, icon: Icon } }: { source: Source }) {
  const current = useSettings((s) => s.settings.way.source) === name;
  const choose = () => {
    dropTake();
    leaveSource(name);
    useTake.setState({ problem: null });
    changeWay({ source: name });
  };
  return <Chip label={label} icon={<Icon {...icon} />} current={current} onClick={choose} />;
}
