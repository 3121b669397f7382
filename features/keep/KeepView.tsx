import { FolderDown } from 'lucide-react';
import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { whenSettled } from '../outbox/settling';
import { fromOutbox, whenStored } from '../outbox/outbox';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { announce } from '../ui/announce';
import { renameShot } from '../names/rename';
import { ShotName } from '../names/ShotName';
import { TagButton } from '../tags/TagButton';
import { useOnline } from '../outbox/online';
import { useAction } from '../keys/useAction';
import { modifier, useKey } from '../keys/useKey';
import { FormatPanel } from './FormatPanel';
import { keepEverywhere, type Result } from './keepEverywhere';
import { asFolder, useBrowserFolders } from './browser/folders';
import { NameField } from './NameField';
import { countOf, noPlaces, without, type Places } from './chosenPlaces';
import { Preview } from './Preview';
import { Readable } from './Readable';
import { Results } from './Results';
import { SizePanel } from './SizePanel';
import { factsFor, useFormats } from './useFormats';
import { useRemotes } from './useRemotes';
import { usePicture } from './usePicture';
import { PlacesPanel } from './PlacesPanel';
import { useChosen } from './remembered';
import { noWish, wishFor, type Wish } from './wish';

export function KeepView({ id }: { id: string }) {
  const [shot, setShot] = useState<Shot | null>(null);
  const [folders, setFolders] = useState<Folder[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  useEffect(() => {
    let wanted = true;
    setProblem(null);
    const load = async () => {
      await whenSettled(id);
      if (await fromOutbox(id)) await whenStored(id);
      const [read, places] = await Promise.all([api.shot(id), api.folders()]);
      if (!wanted) return;
      // What moves is kept in a view of its own.
      if (read.clip) return navigate(`/clips/${id}`, 'replace');
      setShot(read);
      setFolders(places.folders);
    };
    load().catch((error: unknown) => wanted && setProblem(messageOf(error)));
    return () => {
      wanted = false;
    };
  }, [id, round]);
  const title = shot?.title;
  useEffect(() => {
    document.title = title === undefined ? 'Keep – Rezzik' : `${title} – Keep – Rezzik`;
  }, [title]);
  useKey('escape', () => navigate(`/shots/${id}`));
  // Who presses it before the shot is there means it none the less.
  const [atOnce, setAtOnce] = useState(false);
  useAction('keep.go', () => setAtOnce(true), { enabled: !shot });
  if (shot) return <OpenKeep {...{ shot, folders, atOnce }} onShot={setShot} />;
  return (
    <>
      <Thread step="keep" shot={id} />
      <main className="grid grow place-content-center p-8">
        <h1 className="sr-only">Keep</h1>
        {problem ? (
          <Problem action={<Button onClick={() => setRound((n) => n + 1)}>Try again</Button>}>
            This shot could not be opened. {problem}
          </Problem>
        ) : (
          <p role="status" className="text-soft">
            Waiting until the shot is stored …
          </p>
        )}
      </main>
    </>
  );
}

interface OpenProps {
  shot: Shot;
  folders: Folder[];
  /** It is kept as soon as it is open. */
  atOnce: boolean;
  onShot: (shot: Shot) => void;
}

function OpenKeep({ shot, folders, atOnce, onShot }: OpenProps) {
  const asked = useMemo(() => window.location.search === '?ask', []);
  const [{ wish, places }, setChosen] = useChosen(shot.id, () => ({
    wish: noWish,
    places: { ...noPlaces, folders: folders.filter((f) => f.isDefault).map((f) => f.id) },
  }));
  const setWish = (change: Partial<Wish>) =>
    setChosen((now) => ({ ...now, wish: { ...now.wish, ...change } }));
  const formats = useFormats();
  const remotes = useRemotes();
  const browserFolders = useBrowserFolders();
  const online = useOnline();
  const [results, setResults] = useState<Result[]>([]);
  const [busy, setBusy] = useState(false);
  const here = browserFolders.find((f) => places.browser.includes(f.id));
  const first = useMemo(
    () =>
      folders.find((f) => places.folders.includes(f.id)) ?? (here ? asFolder(here) : folders[0]),
    [folders, places.folders, here],
  );
  const leaving = useMemo(() => wishFor(wish, first), [wish, first]);
  const facts = factsFor(formats, leaving.format);
  const picture = usePicture(shot, leaving);
  const { crop } = shot.document.view;
  const count = countOf(places);
  const keep = async () => {
    if (busy || count === 0) return;
    setBusy(true);
    setResults([]);
    const allWell = await keepEverywhere({
      shot,
      folders,
      browserFolders,
      remotes,
      formats,
      places,
      wish,
      onResult: (result) =>
        setResults((all) => [...all.filter((r) => r.key !== result.key), result]),
      onPlaceGone: (gone) => setChosen((now) => ({ ...now, places: without(now.places, gone) })),
    });
    setBusy(false);
    announce(allWell ? 'Kept.' : 'Not kept in every place.');
  };
  const keepAtOnce = useEffectEvent(() => void keep());
  useEffect(() => {
    if (atOnce) keepAtOnce();
  }, [atOnce]);
  useAction('keep.go', () => void keep());
  useKey('enter', () => void keep());
  return (
    <>
      <Thread
        step="keep"
        shot={shot.id}
        middle={
          <>
            <ShotName
              shot={shot}
              onChange={(title) => onShot({ ...shot, title, titleOwn: true })}
            />
            <TagButton shot={shot.id} side="bottom" />
          </>
        }
      />
      <div className="flex min-h-0 grow">
        <main
          aria-label="As it will arrive"
          data-home
          tabIndex={-1}
          className="flex min-w-0 grow flex-col bg-desk p-4 outline-none"
        >
          <Preview shot={shot} picture={picture} wish={leaving} facts={facts}>
            {results.length > 0 && (
              <Results results={results} shot={shot} onClose={() => setResults([])} />
            )}
          </Preview>
        </main>
        <aside
          aria-label="How to keep it"
          className="flex w-[420px] shrink-0 flex-col-reverse border-l border-line bg-paper max-[1180px]:w-[372px]"
        >
          {/* Last for the eyes, first for the Tab key: the next step is near the start. */}
          <div className="flex flex-col gap-2 border-t border-line px-4 py-2">
            {!online && <Offline />}
            <Button
              look="next"
              className="h-11 text-base"
              hint={`${modifier}+Enter`}
              icon={<FolderDown size={18} strokeWidth={1.75} />}
              disabled={count === 0 || busy}
              onClick={() => void keep()}
            >
              {busy ? 'Keeping …' : count === 1 ? 'Keep in 1 place' : `Keep in ${count} places`}
            </Button>
          </div>
          <div className="flex min-h-0 grow flex-col gap-2 overflow-auto px-4 py-2">
            <PlacesPanel
              folders={folders}
              browserFolders={browserFolders}
              remotes={remotes}
              places={places}
              onChange={(next) => setChosen((now) => ({ ...now, places: next }))}
            />
            {folders.length === 0 && <NoFolder />}
            <LeavesAs shot={shot} places={places} onShot={onShot} />
            {!leavingDescription(shot) && (places.link || places.mail) && (
              <AskDescription shot={shot.id} />
            )}
            <FormatPanel
              shot={shot}
              formats={formats}
              wish={leaving}
              made={picture.made}
              onChange={setWish}
            />
            <SizePanel
              own={picture.made?.own ?? crop}
              size={wish.size ?? first?.size ?? {}}
              onChange={(size) => setWish({ size })}
            />
            <Readable
              shot={shot}
              width={picture.made?.width ?? crop.width}
              own={(picture.made?.own ?? crop).width}
              onWidth={(width) => setWish({ size: { width } })}
            />
            <NameField
              shot={shot}
              folder={first}
              extension={facts?.extension ?? leaving.format}
              size={picture.made ?? crop}
              pattern={wish.pattern ?? first?.pattern ?? '{title} {date} {time}'}
              asked={asked}
              onChange={(pattern) => setWish({ pattern })}
              onEnter={() => void keep()}
            />
          </div>
        </aside>
      </div>
    </>
  );
}

/** Under which name it leaves, where its own would tell the window's title; one click says it may. */
function LeavesAs({
  shot,
  places,
  onShot,
}: Pick<OpenProps, 'shot' | 'onShot'> & { places: Places }) {
  const leaving = leavingTitle(shot);
  if (leaving === shot.title || !(places.link || places.mail || places.clipboard)) return null;
  const confirm = () =>
    void renameShot(shot.id, shot.title).then(() => onShot({ ...shot, titleOwn: true }));
  return (
    <p className="text-[13px] text-soft">
      It leaves as “{leaving}”: the window’s title stays here.{' '}
      <button type="button" className="text-petrol underline" onClick={confirm}>
        Use the whole name
      </button>
    </p>
  );
}

const Offline = () => (
  <p role="status" className="text-[13px] text-brick">
    This browser is offline from Rezzik’s server. Nothing is kept until it answers; the shot and
    what you chose here are safe, and keeping works again by itself.
  </p>
);

const NoFolder = () => (
  <p className="text-soft">
    No folder is set up yet.{' '}
    <a href="/setup/folders" onClick={followLink} className="text-petrol underline">
      Set one up
    </a>
    , or copy or download the picture.
  </p>
);

const AskDescription = ({ shot }: { shot: string }) => (
  <p className="rounded-[8px] border border-line bg-card p-2 text-[13px] text-soft">
    It goes to other people: a{' '}
    <a href={`/shots/${shot}`} onClick={followLink} className="text-petrol underline">
      description
    </a>{' '}
    would help those who cannot see it.
  </p>
);
