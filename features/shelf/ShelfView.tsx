import { Aperture } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { useKey } from '../keys/useKey';
import { openFound } from './openFound';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { bringIn, filesIn } from '../take/files';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { BinBar } from './BinBar';
import { Days } from './Days';
import { ListBar } from './ListBar';
import { LookLarge } from './LookLarge';
import { ChosenShots } from './ChosenShots';
import { Places } from './Places';
import { ask, callField, readAddress, useAsked } from './search/asked';
import { Chips } from './Chips';
import { NothingFound } from './search/NothingFound';
import { sayCount, SearchField } from './search/SearchField';
import { ShotFacts } from './ShotFacts';
import { useShots, type ShotList } from './useShots';

/** All shots by day, newest first, or what is asked for; the bin beside them. */
export function ShelfView() {
  useAddress();
  usePasting();
  const { text, bin } = useAsked();
  const list = useShots();
  const choice = useChoice(list, `${text} ${bin}`);
  const { shot, many } = choice;
  const asks = text.trim() !== '';
  const main = useRef<HTMLElement>(null);
  useSaidCount(list);
  useEffect(() => {
    const place = bin ? 'Bin' : 'Shelf';
    document.title = asks ? `${text.trim().slice(0, 80)} – ${place} – Rezzik` : `${place} – Rezzik`;
  }, [text, asks, bin]);
  useKey('/', () => callField());
  useKey('escape', () => {
    if (choice.several.length) choice.setSeveral([]);
    else if (asks) ask({ text: '' });
    else return false;
  });
  const focusCard = (id: string) =>
    requestAnimationFrame(() =>
      main.current?.querySelector<HTMLElement>(`[data-shot="${id}"]`)?.focus(),
    );
  const toFirst = () => {
    const [first] = list.shots;
    if (!first) return;
    choice.setChosen(first.id);
    focusCard(first.id);
  };
  const open = (s: ShotSummary) => !s.binnedAt && openFound(s);
  return (
    <>
      <Thread
        place="shelf"
        shot={shot && !bin ? shot.id : null}
        middle={<SearchField count={list.count} onEnter={toFirst} />}
        actions={
          <Button
            look="next"
            icon={<Aperture size={18} strokeWidth={1.75} />}
            onClick={() => navigate('/take')}
          >
            Take
          </Button>
        }
      />
      <div className="flex min-h-0 grow">
        <Places total={list.total} />
        <main
          ref={main}
          aria-label={bin ? 'Bin' : asks ? 'Shots found' : 'Shots by day'}
          className="flex min-w-0 grow flex-col"
        >
          <h1 className="sr-only">{bin ? 'Bin' : 'Shelf'}</h1>
          <Chips />
          {bin && <BinBar />}
          {many.length > 0 && !bin && (
            <ChosenShots
              shots={many}
              onClear={() => choice.setSeveral([])}
              onGone={choice.gone}
              onChanged={list.amend}
            />
          )}
          {list.problem && (
            <div className="p-4">
              <Problem action={<Button onClick={list.reload}>Try again</Button>}>
                {list.problem}
              </Problem>
            </div>
          )}
          {list.inside && (
            <p className="px-5 pt-2 text-soft">
              No shot has just these words; they stand within other words here.
            </p>
          )}
          {list.loaded && list.shots.length === 0 && list.waiting.length === 0 ? (
            asks ? (
              <NothingFound help={list.help} />
            ) : (
              <Empty bin={bin} />
            )
          ) : (
            <Days
              list={list}
              chosen={choice.chosen}
              several={choice.several}
              onSeveral={choice.setSeveral}
              onChoose={choice.setChosen}
              onOpen={open}
              onLook={(s) => {
                choice.setChosen(s.id);
                choice.setLooking(true);
              }}
            />
          )}
          <ListBar />
        </main>
        {shot && (
          <ShotFacts key={shot.id} shot={shot} onChanged={list.amend} onGone={choice.gone} />
        )}
      </div>
      <LookLarge
        shot={choice.looking ? shot : null}
        onStep={choice.step}
        onOpen={open}
        onClose={() => {
          choice.setLooking(false);
          if (shot) focusCard(shot.id);
        }}
      />
    </>
  );
}

/** What the address asks for, when the Shelf opens and on Back and Forward. */
function useAddress(): void {
  // Before the first page is asked for.
  useState(readAddress);
  useEffect(() => {
    window.addEventListener('popstate', readAddress);
    return () => window.removeEventListener('popstate', readAddress);
  }, []);
}

function usePasting(): void {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = filesIn(event.clipboardData);
      if (files.length) void bringIn(files, 'pasted', false);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, []);
}

/** How many were found is read out once it is known. */
function useSaidCount({ count }: ShotList): void {
  const words = count && sayCount(count);
  useEffect(() => {
    if (words) announce(`${words} found`);
  }, [words]);
}

/** The chosen shot and the several; both end with what was asked for. */
function useChoice(list: ShotList, asked: string) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [several, setSeveral] = useState<readonly string[]>([]);
  const [looking, setLooking] = useState(false);
  const { shots, remove } = list;
  useEffect(() => {
    setChosen(null);
    setSeveral([]);
  }, [asked]);
  const shot = useMemo(() => shots.find((s) => s.id === chosen) ?? null, [shots, chosen]);
  const many = useMemo(() => shots.filter((s) => several.includes(s.id)), [shots, several]);
  const gone = useCallback(
    (id: string) => {
      remove(id);
      setChosen((one) => (one === id ? null : one));
      setSeveral((all) => all.filter((one) => one !== id));
    },
    [remove],
  );
  const step = (by: 1 | -1) => {
    const to = shot && shots[shots.indexOf(shot) + by];
    if (to) setChosen(to.id);
  };
  return { chosen, setChosen, several, setSeveral, looking, setLooking, shot, many, gone, step };
}

function Empty({ bin }: { bin: boolean }) {
  return (
    <p className="m-auto max-w-sm text-center text-soft">
      {bin ? (
        'The bin is empty.'
      ) : (
        <>
          Nothing on the Shelf yet.{' '}
          <a href="/take" onClick={followLink} className="text-petrol underline">
            Take the first picture
          </a>
          ; every shot lands here by itself.
        </>
      )}
    </p>
  );
}
