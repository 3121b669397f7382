import { Copy, Download, Film, PanelRight, PictureInPicture2, Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { canRedo, canUndo } from '@/core/document/history';
import { messageOf } from '../api/ask';
import { paintPng } from '../pictures/pictures';
import { momentAsked } from '../films/momentAsked';
import { followLink, navigate } from '../thread/navigate';
import { notify } from '../notices/noticeStore';
import { openSmall } from '../small/smallWindow';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { Item, Row } from '../ui/Row';
import { ShotName } from '../names/ShotName';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { setTitle } from './actions/change';
import { redo, undo } from './session/changes';
import { pasteMarks } from './actions/arrange';
import { copyChosen, copyShot } from './actions/copying';
import { Adjusted } from './panels/Adjusted';
import { AroundIt } from './panels/AroundIt';
import { LookKeys, LooksPanel } from './panels/LooksPanel';
import { Description } from './panels/Description';
import { DropRest } from './panels/DropRest';
import { KeptAround } from './panels/KeptAround';
import { MarksList } from './panels/MarksList';
import { MomentRow } from './panels/MomentRow';
import { openClipAt, openShot } from './openShot';
import { useDocument } from './session/document';
import { leavingDocument } from './session/leaving';
import { closeSession, session, useIsOpen } from './session/session';
import { Stage } from './stage/Stage';
import { StaleBanner } from './panels/StaleBanner';
import { StatusLine } from './panels/StatusLine';
import { stopStoring } from './session/storing';
import { Strip } from './strip/Strip';
import { ToolsPanel } from './panels/ToolsPanel';
import { keepUsual } from './actions/keepUsual';
import { useMarkKeys } from './useMarkKeys';
import { useDroppedPictures } from './actions/pieces';
import { PrivateThings } from './panels/PrivateThings';
import { forgetStandingOut, standOutAgain, stopStandingOut } from './recognise/standsOut';
import { stopLooking, usePrivate } from './recognise/privateStore';
import { stopWords } from './recognise/wordsOut';
import { TagsOf } from '../tags/TagsOf';
import { TrailRow } from '../trail/TrailRow';
import { useAdjustedPicture } from './fit/adjusting';
import { useFollowedFrame } from './fit/following';
import { useTurnedPicture } from './fit/turning';
import { WhereFrom } from './panels/WhereFrom';

/** @param clip of which one picture is marked, the one that the address tells */
export function MarkView({ id, clip = false }: { id: string; clip?: boolean }) {
  const isOpen = useIsOpen(id);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const reload = useCallback(() => {
    forgetStandingOut();
    stopStoring();
    closeSession();
    setRound((n) => n + 1);
  }, []);
  useEffect(() => {
    let wanted = true;
    setProblem(null);
    document.title = 'Mark – Rezzik';
    const opened = clip ? openClipAt(id, momentAsked(), () => wanted) : openShot(id, () => wanted);
    opened.catch((error: unknown) => wanted && setProblem(messageOf(error)));
    return () => {
      wanted = false;
      stopLooking();
      stopWords();
      stopStandingOut();
      stopStoring();
      closeSession();
    };
  }, [id, clip, round]);
  if (isOpen) return <OpenMark onReload={reload} />;
  return (
    <>
      <Thread step="mark" shot={id} />
      <main className="grid grow place-content-center gap-4 p-8">
        <h1 className="sr-only">Mark</h1>
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
  const id = useDocument((s) => s.id);
  const title = useDocument((s) => s.title);
  const isClip = useDocument((s) => s.moment !== null);
  const [folded, setFolded] = useState(true);
  const stale = useDocument((s) => s.stored.name === 'stale');
  const searching = usePrivate((p) => p.search.name !== 'none');
  useMarkKeys();
  useFollowedFrame();
  useTurnedPicture();
  useAdjustedPicture(standOutAgain);
  useDroppedPictures();
  useEffect(() => {
    document.title = `${title} – Mark – Rezzik`;
  }, [title]);
  return (
    <>
      <MarkThread />
      <div className="flex min-h-0 grow">
        <ToolsPanel />
        <main aria-label="Mark" className="relative flex min-w-0 grow flex-col">
          <h1 className="sr-only">Mark</h1>
          <Stage />
          {/* Above the picture, yet after it for the Tab key, which is to be there soon. */}
          <div className="order-first flex">
            <div className="min-w-0 grow">
              {stale ? <StaleBanner onReload={onReload} /> : <Strip />}
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
        </main>
        <aside
          aria-label="About this shot"
          data-column
          className={classes(
            'w-[248px] shrink-0 overflow-auto border-l border-line bg-paper min-[1180px]:block',
            folded && !searching && 'hidden',
          )}
        >
          <div className="flex flex-col gap-5 p-2.5">
            <PrivateThings />
            <Adjusted />
            <AroundIt />
            <LooksPanel />
            <MarksList />
            <div>
              <KeptAround />
              {!isClip && <DropRest onDone={onReload} />}
            </div>
            <WhereFrom />
            <Description />
            <section aria-label="Tags">
              <h2 className="mb-1 font-name text-base">Tags</h2>
              <TagsOf id={id} />
            </section>
          </div>
        </aside>
      </div>
      <MomentRow />
      <TrailRow current={id} />
      <StatusLine />
      <LookKeys />
    </>
  );
}

function MarkThread() {
  const id = useDocument((s) => s.id);
  const moment = useDocument((s) => s.moment);
  const title = useDocument((s) => s.title);
  const undoable = useDocument((s) => canUndo(s.history));
  const redoable = useDocument((s) => canRedo(s.history));
  const icon = { size: 18, strokeWidth: 1.75 };
  const keys = {
    undo: useKeyOf('mark.undo'),
    redo: useKeyOf('mark.redo'),
    copy: useKeyOf('mark.copy'),
    keep: useKeyOf('keep.go'),
  };
  useAction('mark.copy', () => {
    // Words that were selected on the page are what is meant.
    if (window.getSelection()?.toString()) return false;
    if (session().selection.length === 0) void copyShot();
    else void copyChosen();
  });
  useAction('mark.paste', () => void pasteMarks());
  useAction('keep.usual', () => void keepUsual(), { enabled: !moment });
  const next = () => {
    if (!moment) navigate(`/shots/${id}/keep`);
    else navigate(`/clips/${id}`, 'push', `?at=${moment.times[moment.picture] ?? 0}`);
  };
  useAction('keep.go', next);
  return (
    <Thread
      step="mark"
      shot={id}
      middle={<ShotName shot={{ id, title }} onChange={setTitle} />}
      actions={
        <>
          <Row label="With this shot" className="flex items-center gap-2 max-[900px]:gap-1">
            <Item>
              <IconButton
                label="Undo"
                hint={keyLabel(keys.undo)}
                disabled={!undoable}
                onClick={undo}
                className="border border-edge bg-card"
              >
                <Undo2 {...icon} />
              </IconButton>
            </Item>
            <Item>
              <IconButton
                label="Redo"
                hint={keyLabel(keys.redo)}
                disabled={!redoable}
                onClick={redo}
                className="border border-edge bg-card"
              >
                <Redo2 {...icon} />
              </IconButton>
            </Item>
            <Item>
              <IconButton
                label="Hold in view"
                onClick={() => void holdInView()}
                className="border border-edge bg-card"
              >
                <PictureInPicture2 {...icon} />
              </IconButton>
            </Item>
            <Item>
              <Button
                folds
                hint={keyLabel(keys.copy)}
                icon={<Copy {...icon} />}
                onClick={() => void copyShot()}
              >
                Copy
              </Button>
            </Item>
          </Row>
          <Button
            look="next"
            hint={keyLabel(keys.keep)}
            icon={moment ? <Film {...icon} /> : <Download {...icon} />}
            onClick={next}
          >
            {moment ? 'To the clip' : 'Keep'}
          </Button>
        </>
      }
    />
  );
}

/** The shot as it is now, in a small window that stays on top where the browser can. */
async function holdInView(): Promise<void> {
  const { frame, id, title } = session();
  const url = URL.createObjectURL(await paintPng(frame, leavingDocument(true)));
  if (await openSmall({ id, title, url })) return;
  URL.revokeObjectURL(url);
  notify({
    key: 'held',
    tone: 'bad',
    title: 'No small window could be opened',
    lines: ['The browser keeps pages from opening windows. Allow it for this page and try again.'],
  });
}
