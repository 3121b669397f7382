import { FolderDown } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { api, messageOf } from '../api/client';
import { whenSettled } from '../mark/storing';
import { fromOutbox, whenStored } from '../outbox/outbox';
import { followLink, navigate } from '../shell/navigate';
import { Thread } from '../shell/Thread';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TitleField } from '../ui/TitleField';
import { useAction } from '../keys/useAction';
import { modifier, useKey } from '../ui/useKeys';
import { As } from './As';
import { keepEverywhere, type Result } from './keepEverywhere';
import { asFolder, useBrowserFolders } from './browser/folders';
import { NameField } from './NameField';
import { countOf, noPlaces, type Places } from './places';
import { Preview } from './Preview';
import { Readable } from './Readable';
import { Results } from './Results';
import { Size } from './Size';
import { factsFor, useFormats } from './useFormats';
import { useRemotes } from './useRemotes';
import { usePicture } from './usePicture';
import { Where } from './Where';
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
      setShot(read);
      setFolders(places.folders);
      document.title = `${read.title} – Keep – Rezzik`;
    };
    load().catch((error: unknown) => wanted && setProblem(messageOf(error)));
    return () => {
      wanted = false;
    };
  }, [id, round]);
  useKey('escape', () => navigate(`/shots/${id}`));
  if (shot) return <OpenKeep shot={shot} folders={folders} onShot={setShot} />;
  return (
    <>
      <Thread step="keep" shot={id} />
      <main className="grid grow place-content-center p-8">
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
  onShot: (shot: Shot) => void;
}

function OpenKeep({ shot, folders, onShot }: OpenProps) {
  const [wish, setWish] = useState<Wish>(noWish);
  const formats = useFormats();
  const remotes = useRemotes();
  const browserFolders = useBrowserFolders();
  const [places, setPlaces] = useState<Places>(() => ({
    ...noPlaces,
    folders: folders.filter((f) => f.isDefault).map((f) => f.id),
  }));
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
  const keep = useCallback(async () => {
    if (busy || count === 0) return;
    setBusy(true);
    await keepEverywhere({
      shot,
      folders,
      browserFolders,
      remotes,
      formats,
      places,
      wish,
      onResult: (result) =>
        setResults((all) => [...all.filter((r) => r.key !== result.key), result]),
    });
    setBusy(false);
  }, [busy, count, shot, folders, browserFolders, remotes, formats, places, wish]);
  useAction('keep.go', () => void keep());
  const rename = (title: string) => {
    api.rename(shot.id, title).then(
      () => onShot({ ...shot, title }),
      () => onShot({ ...shot }),
    );
  };
  return (
    <>
      <Thread
        step="keep"
        shot={shot.id}
        middle={<TitleField title={shot.title} onChange={rename} />}
      />
      <div className="flex min-h-0 grow">
        <main aria-label="As it will arrive" className="flex min-w-0 grow flex-col bg-desk p-4">
          <Preview shot={shot} picture={picture} wish={leaving} facts={facts} />
        </main>
        <aside
          aria-label="How to keep it"
          className="flex w-[372px] shrink-0 flex-col border-l border-line bg-paper"
        >
          <div className="flex min-h-0 grow flex-col gap-4 overflow-auto p-4">
            <Where
              folders={folders}
              browserFolders={browserFolders}
              remotes={remotes}
              places={places}
              onChange={setPlaces}
            />
            {folders.length === 0 && (
              <p className="text-soft">
                No folder is set up yet.{' '}
                <a href="/setup/folders" onClick={followLink} className="text-petrol underline">
                  Set one up
                </a>
                , or copy or download the picture.
              </p>
            )}
            {!shot.document.description && (places.link || places.mail) && (
              <p className="rounded-[8px] border border-line bg-card p-2 text-[13px] text-soft">
                It goes to other people: a{' '}
                <a
                  href={`/shots/${shot.id}`}
                  onClick={followLink}
                  className="text-petrol underline"
                >
                  description
                </a>{' '}
                would help those who cannot see it.
              </p>
            )}
            <As
              shot={shot}
              formats={formats}
              wish={leaving}
              made={picture.made}
              onChange={(change) => setWish({ ...wish, ...change })}
            />
            <Size
              own={crop}
              size={wish.size ?? first?.size ?? {}}
              onChange={(size) => setWish({ ...wish, size })}
            />
            <Readable
              shot={shot}
              width={picture.made?.width ?? crop.width}
              own={crop.width}
              onWidth={(width) => setWish({ ...wish, size: { width } })}
            />
            <NameField
              shot={shot}
              folder={first}
              extension={facts?.extension ?? leaving.format}
              size={picture.made ?? crop}
              pattern={wish.pattern ?? first?.pattern ?? '{title} {date} {time}'}
              onChange={(pattern) => setWish({ ...wish, pattern })}
            />
          </div>
          <div className="flex flex-col gap-3 border-t border-line p-4">
            <Results results={results} shot={shot} />
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
        </aside>
      </div>
    </>
  );
}
