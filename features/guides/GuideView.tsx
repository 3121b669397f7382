import { Eye, Redo2, Trash2, Undo2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { limits } from '@/core/values/limits';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { useAction } from '../keys/useAction';
import { useKey } from '../keys/useKey';
import { notify } from '../notices/noticeStore';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Confirm } from '../ui/Confirm';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { TitleField } from '../ui/TitleField';
import { AddShots } from './AddShots';
import { addHeading, addShots, changeHeading, moveItem, removeItem } from './edit';
import {
  change,
  forgetGuide,
  isUnsent,
  leaveGuide,
  readGuide,
  redo,
  sendWhileLeaving,
  storeMine,
  takeTheirs,
  undo,
  useGuide,
  type GuideState,
} from './guideStore';
import { KeepGuide } from './KeepGuide';
import { LookAtIt } from './LookAtIt';
import { StepCard } from './StepCard';
import { useGuideItems } from './useNumbers';
import { Steps } from './Steps';

/** One guide: its steps, the chosen one large, how it is kept. */
export function GuideView({ id }: { id: string }) {
  const isOpen = useGuide((s) => s.open?.id === id);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  useEffect(() => {
    let wanted = true;
    setProblem(null);
    const read = () =>
      readGuide(id).catch((error: unknown) => wanted && setProblem(messageOf(error)));
    void read();
    // Shots may be marked, and the guide changed, in another tab meanwhile.
    const again = () => !document.hidden && void read();
    const hold = (event: BeforeUnloadEvent) => isUnsent() && event.preventDefault();
    document.addEventListener('visibilitychange', again);
    window.addEventListener('pagehide', sendWhileLeaving);
    window.addEventListener('beforeunload', hold);
    return () => {
      wanted = false;
      document.removeEventListener('visibilitychange', again);
      window.removeEventListener('pagehide', sendWhileLeaving);
      window.removeEventListener('beforeunload', hold);
      leaveGuide();
    };
  }, [id, round]);
  if (isOpen) return <OpenGuide id={id} />;
  return (
    <>
      <Thread place="shelf" />
      <main className="grid grow place-content-center p-8">
        <h1 className="sr-only">Guide</h1>
        {problem ? (
          <Problem action={<Button onClick={() => setRound((n) => n + 1)}>Try again</Button>}>
            This guide could not be opened. {problem}
          </Problem>
        ) : (
          <p role="status" className="text-soft">
            Opening the guide …
          </p>
        )}
      </main>
    </>
  );
}

function OpenGuide({ id }: { id: string }) {
  const title = useGuide((s) => s.open?.title ?? '');
  const items = useGuideItems();
  const [wanted, choose] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const [looking, setLooking] = useState(false);
  const [asking, setAsking] = useState(false);
  const fresh = useMemo(() => window.location.search === '?new', []);
  const chosen = items.find((item) => item.id === wanted) ?? items[0];
  const at = chosen ? items.indexOf(chosen) : -1;
  useEffect(() => {
    document.title = `${title} – Guide – Rezzik`;
  }, [title]);
  const remove = (item: string) => {
    choose(removeItem(items, item));
    notify({
      key: 'guide-part',
      tone: 'plain',
      title: 'Removed from the guide',
      lines: ['The shot stays on the Shelf.'],
      action: { label: 'Undo', act: undo },
    });
  };
  const step = (by: 1 | -1) => choose(items[at + by]?.id ?? chosen?.id ?? null);
  useKey('escape', () => navigate('/guides'));
  useKey('pagedown', () => step(1));
  useKey('pageup', () => step(-1));
  useKey('alt+arrowdown', () => chosen && moveItem(chosen.id, at + 1));
  useKey('alt+arrowup', () => chosen && moveItem(chosen.id, at - 1));
  useKey('delete backspace', () => chosen && remove(chosen.id));
  useAction('mark.undo', undo);
  useAction('mark.redo', redo);
  const removeAll = async () => {
    await api.removeGuide(id);
    forgetGuide();
    navigate('/guides');
  };
  return (
    <>
      <Thread
        place="shelf"
        middle={
          <TitleField
            label="Title of the guide"
            title={title}
            fresh={fresh}
            onChange={(next) => change((draft) => void (draft.title = next))}
          />
        }
        actions={<Actions onLook={() => setLooking(true)} onRemove={() => setAsking(true)} />}
      />
      <Stale />
      <div className="flex min-h-0 grow">
        <Steps
          chosen={chosen?.id ?? null}
          onChoose={choose}
          onRemove={remove}
          onHeading={() => choose(addHeading(chosen?.id ?? null))}
          onShots={() => setAdding(true)}
        />
        <main
          data-home
          tabIndex={-1}
          aria-label="Step"
          className="min-w-0 grow overflow-auto bg-desk p-5 outline-none"
        >
          <h1 className="sr-only">{title}</h1>
          <article className="mx-auto min-h-full max-w-[760px] rounded-[9px] border border-line bg-card p-7">
            {chosen?.kind === 'step' && <StepCard key={chosen.id} step={chosen} />}
            {chosen?.kind === 'heading' && (
              <input
                key={chosen.id}
                autoFocus={chosen.text === ''}
                aria-label="Heading"
                placeholder="Heading"
                value={chosen.text}
                maxLength={limits.titleLength}
                onChange={(event) => changeHeading(chosen.id, event.target.value)}
                className="w-full rounded-[6px] border border-edge bg-card px-2 py-1 font-name text-2xl"
              />
            )}
            {!chosen && (
              <p className="text-soft">
                Nothing in this guide yet. Add shots from the Shelf; each becomes a step.
              </p>
            )}
          </article>
        </main>
        <KeepGuide id={id} onChoose={choose} />
      </div>
      <AddShots
        open={adding}
        onClose={() => setAdding(false)}
        onAdd={(shots) => {
          choose(addShots(shots));
          setAdding(false);
        }}
      />
      <LookAtIt id={id} open={looking} onClose={() => setLooking(false)} />
      <Confirm
        open={asking}
        title="Remove this guide?"
        description="Its order and captions are gone, and links to it end. Its shots and what was kept stay."
        verb="Remove"
        onYes={() =>
          void removeAll().catch((error: unknown) =>
            notify({ key: 'guide', tone: 'bad', title: 'Not removed', lines: [messageOf(error)] }),
          )
        }
        onClose={() => setAsking(false)}
      />
    </>
  );
}

function Actions({ onLook, onRemove }: { onLook: () => void; onRemove: () => void }) {
  const state = useGuide((s) => s.open?.state);
  const canUndo = useGuide((s) => (s.open?.before.length ?? 0) > 0);
  const canRedo = useGuide((s) => (s.open?.undone.length ?? 0) > 0);
  return (
    <>
      <span
        role="status"
        data-testid="stored"
        className="text-[13px] text-soft max-[1100px]:sr-only"
      >
        {state && stateWords(state)}
      </span>
      <IconButton label="Undo" disabled={!canUndo} onClick={undo}>
        <Undo2 size={18} strokeWidth={1.75} />
      </IconButton>
      <IconButton label="Redo" disabled={!canRedo} onClick={redo}>
        <Redo2 size={18} strokeWidth={1.75} />
      </IconButton>
      <IconButton label="Remove the guide" onClick={onRemove}>
        <Trash2 size={18} strokeWidth={1.75} />
      </IconButton>
      <a href="/guides" onClick={followLink} className="text-petrol underline">
        All guides
      </a>
      <Button icon={<Eye size={16} strokeWidth={1.75} />} onClick={onLook}>
        Look at it
      </Button>
    </>
  );
}

function stateWords(state: GuideState): string {
  switch (state.name) {
    case 'stored':
      return 'All changes stored';
    case 'storing':
      return 'Storing …';
    case 'waiting':
      return `Not stored yet: ${state.why}`;
    case 'stale':
      return 'Changed elsewhere';
  }
}

/** Somebody changed it meanwhile: both versions are there until one is chosen. */
function Stale() {
  const isStale = useGuide((s) => s.open?.state.name === 'stale');
  if (!isStale) return null;
  return (
    <div className="p-2">
      <Problem
        action={
          <span className="flex gap-2">
            <Button onClick={takeTheirs}>Take the other version</Button>
            <Button onClick={storeMine}>Store this one</Button>
          </span>
        }
      >
        This guide was changed in another tab. What you see here is not stored yet; undo brings back
        whichever you leave.
      </Problem>
    </div>
  );
}
