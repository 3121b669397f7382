import { Copy, Download, PanelRight, PictureInPicture2, Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { canRedo, canUndo } from '@/core/shot/history';
import { messageOf } from '../api/client';
import { copyPicture } from '../pictures/clipboard';
import { paintPng } from '../pictures/pictures';
import { followLink, navigate } from '../shell/navigate';
import { notify } from '../shell/noticeStore';
import { openSmall } from '../small/smallWindow';
import { Thread } from '../shell/Thread';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { TitleField } from '../ui/TitleField';
import { useAction } from '../keys/useAction';
import { modifier } from '../ui/useKeys';
import { redo, setTitle, undo } from './actions';
import { copyMarks, pasteMarks } from './arrange';
import { Description } from './Description';
import { DropRest } from './DropRest';
import { KeptAround } from './KeptAround';
import { MarksList } from './MarksList';
import { openShot } from './open';
import { closeSession, session, useMark, useSession } from './session';
import { Stage } from './Stage';
import { StaleBanner } from './StaleBanner';
import { StatusLine } from './StatusLine';
import { stopStoring } from './storing';
import { Strip } from './strip/Strip';
import { ToolsPanel } from './ToolsPanel';
import { keepUsual } from './keepUsual';
import { useMarkKeys } from './useMarkKeys';
import { useDroppedPictures } from './pieces';
import { PrivateThings } from './PrivateThings';
import { stopLooking, usePrivate } from './privateStore';
import { stopWords } from './wordsOut';
import { useTurnedPicture } from './turning';
import { WhereFrom } from './WhereFrom';

export function MarkView({ id }: { id: string }) {
  const isOpen = useMark((s) => s.session?.id === id);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const reload = useCallback(() => {
    stopStoring();
    closeSession();
    setRound((n) => n + 1);
  }, []);
  useEffect(() => {
    let wanted = true;
    setProblem(null);
    openShot(id, () => wanted).catch((error: unknown) => wanted && setProblem(messageOf(error)));
    return () => {
      wanted = false;
      stopLooking();
      stopWords();
      stopStoring();
      closeSession();
    };
  }, [id, round]);
  if (isOpen) return <OpenMark onReload={reload} />;
  return (
    <>
      <Thread step="mark" shot={id} />
      <main className="grid grow place-content-center gap-4 p-8">
        {problem ? (
          <Problem action={<Button onClick={reload}>Try again</Button>}>
            This shot could not be opened. {problem}{' '}
            <a href="/shelf" onClick={followLink} className="underline">
              Go to the Shelf
            </a>
          </Problem>
        ) : (
          <p role="status" className="text-soft">
            Opening the shot …
          </p>
        )}
      </main>
    </>
  );
}

function OpenMark({ onReload }: { onReload: () => void }) {
  const title = useSession((s) => s.title);
  const [folded, setFolded] = useState(true);
  const searching = usePrivate((p) => p.search.name !== 'none');
  useMarkKeys();
  useTurnedPicture();
  useDroppedPictures();
  useEffect(() => {
    document.title = `${title} – Mark – Rezzik`;
  }, [title]);
  return (
    <>
      <MarkThread />
      <StaleBanner onReload={onReload} />
      <div className="flex min-h-0 grow">
        <ToolsPanel />
        <main aria-label="Mark" className="relative flex min-w-0 grow flex-col">
          <div className="flex">
            <div className="min-w-0 grow">
              <Strip />
            </div>
            <div className="border-b border-line bg-card p-1.5 min-[1180px]:hidden">
              <IconButton
                label={folded ? 'Show marks and map' : 'Hide marks and map'}
                aria-expanded={!folded}
                onClick={() => setFolded(!folded)}
              >
                <PanelRight size={18} strokeWidth={1.75} />
              </IconButton>
            </div>
          </div>
          <Stage />
        </main>
        <aside
          aria-label="About this shot"
          className={classes(
            'w-[248px] shrink-0 flex-col gap-5 overflow-auto border-l border-line bg-paper p-2.5 min-[1180px]:flex',
            folded && !searching ? 'hidden' : 'flex',
          )}
        >
          <PrivateThings />
          <MarksList />
          <div>
            <KeptAround />
            <DropRest onDone={onReload} />
          </div>
          <WhereFrom />
          <Description />
        </aside>
      </div>
      <StatusLine />
    </>
  );
}

function MarkThread() {
  const { id, title, history } = useSession((s) => s);
  const icon = { size: 18, strokeWidth: 1.75 };
  useAction('mark.copy', () => {
    if (session().selection.length === 0) void copy();
    else copyMarks().catch((error: unknown) => notCopied(error));
  });
  useAction('mark.paste', () => void pasteMarks());
  useAction('keep.usual', () => void keepUsual());
  useAction('keep.go', () => navigate(`/shots/${id}/keep`));
  return (
    <Thread
      step="mark"
      shot={id}
      middle={<TitleField title={title} onChange={setTitle} />}
      actions={
        <>
          <IconButton
            label="Undo"
            hint={`${modifier}+Z`}
            disabled={!canUndo(history)}
            onClick={undo}
            className="border border-edge bg-card"
          >
            <Undo2 {...icon} />
          </IconButton>
          <IconButton
            label="Redo"
            hint={`${modifier}+Y`}
            disabled={!canRedo(history)}
            onClick={redo}
            className="border border-edge bg-card"
          >
            <Redo2 {...icon} />
          </IconButton>
          <IconButton
            label="Hold in view"
            onClick={() => void holdInView()}
            className="border border-edge bg-card"
          >
            <PictureInPicture2 {...icon} />
          </IconButton>
          <Button hint={`${modifier}+C`} icon={<Copy {...icon} />} onClick={() => void copy()}>
            Copy
          </Button>
          <Button
            look="next"
            hint={`${modifier}+Enter`}
            icon={<Download {...icon} />}
            onClick={() => navigate(`/shots/${id}/keep`)}
          >
            Keep
          </Button>
        </>
      }
    />
  );
}

/** The shot as it is now, in a small window that stays on top where the browser can. */
async function holdInView(): Promise<void> {
  const { frame, history, id, title } = session();
  const url = URL.createObjectURL(await paintPng(frame, history.document));
  if (await openSmall({ id, title, url })) return;
  URL.revokeObjectURL(url);
  notify({
    key: 'held',
    tone: 'bad',
    title: 'No small window could be opened',
    lines: ['The browser keeps pages from opening windows. Allow it for this page and try again.'],
  });
}

async function copy(): Promise<void> {
  const { frame, history, id } = session();
  try {
    await copyPicture(paintPng(frame, history.document));
    notify({
      key: `copied ${id}`,
      tone: 'good',
      title: 'Copied',
      lines: ['Paste the picture anywhere.'],
    });
  } catch (error) {
    notCopied(error);
  }
}

function notCopied(error: unknown): void {
  notify({
    key: `copied ${session().id}`,
    tone: 'bad',
    title: 'Not copied',
    lines: [messageOf(error)],
    action: { label: 'Try again', act: () => void copy() },
  });
}
