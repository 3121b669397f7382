import { Archive, FolderDown, Printer, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { ShotSummary } from '@/core/contracts/shot';
import { api, messageOf } from '../api/client';
import { navigate } from '../shell/navigate';
import { Button } from '../ui/Button';

interface Props {
  shots: readonly ShotSummary[];
  onClear: () => void;
  onGone: (id: string) => void;
}

interface Failure {
  shot: ShotSummary;
  problem: string;
}

interface Run {
  done: number;
  total: number;
  failed: readonly Failure[];
  stopped: boolean;
  over: boolean;
}

/** At a time: the server encodes with all its cores, more would only wait. */
const AT_ONCE = 2;

/** What is done with several chosen shots at once, with progress and a way to stop. */
export function Many({ shots, onClear, onGone }: Props) {
  const [folders, setFolders] = useState<readonly Folder[]>([]);
  const [folderId, setFolderId] = useState('');
  const [run, setRun] = useState<Run | null>(null);
  const stop = useRef(false);
  useEffect(() => {
    api.folders().then(
      ({ folders: all }) => {
        setFolders(all);
        setFolderId(all.find((f) => f.isDefault)?.id ?? all[0]?.id ?? '');
      },
      () => undefined,
    );
  }, []);
  const each = async (
    these: readonly ShotSummary[],
    work: (shot: ShotSummary) => Promise<unknown>,
  ) => {
    stop.current = false;
    const state: Run = { done: 0, total: these.length, failed: [], stopped: false, over: false };
    setRun(state);
    const queue = [...these];
    const failed: Failure[] = [];
    let done = 0;
    const next = async (): Promise<void> => {
      const shot = queue.shift();
      if (!shot || stop.current) return;
      await work(shot).catch((error: unknown) => failed.push({ shot, problem: messageOf(error) }));
      done += 1;
      setRun({ ...state, done, failed: [...failed] });
      return next();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, next));
    setRun({ ...state, done, failed, stopped: stop.current, over: true });
  };
  const keep = (these: readonly ShotSummary[]) =>
    void each(these, (shot) => api.keep(shot.id, { folderId }));
  const bin = () =>
    void each(shots, async (shot) => {
      await api.bin(shot.id);
      onGone(shot.id);
    });
  const icon = { size: 16, strokeWidth: 1.75 };
  const busy = run !== null && !run.over;
  return (
    <section
      aria-label="Chosen shots"
      className="flex flex-wrap items-center gap-2 border-b border-line bg-card px-4 py-2"
    >
      <span className="font-bold">
        {shots.length === 1 ? '1 shot chosen' : `${shots.length} shots chosen`}
      </span>
      <select
        aria-label="Folder"
        value={folderId}
        disabled={busy}
        onChange={(event) => setFolderId(event.target.value)}
        className="h-8 rounded-[6px] border border-edge bg-card px-2"
      >
        {folders.map((folder) => (
          <option key={folder.id} value={folder.id}>
            {folder.name}
          </option>
        ))}
      </select>
      <Button
        icon={<FolderDown {...icon} />}
        disabled={busy || !folderId}
        onClick={() => keep(shots)}
      >
        Keep all
      </Button>
      <Button
        icon={<Printer {...icon} />}
        disabled={busy || shots.length > 50}
        onClick={() => navigate(`/print/${shots.map((shot) => shot.id).join(',')}`)}
      >
        Print all
      </Button>
      <Button icon={<Archive {...icon} />} disabled={busy} onClick={bin}>
        Put in the bin
      </Button>
      <Button look="quiet" icon={<X {...icon} />} disabled={busy} onClick={onClear}>
        Choose none
      </Button>
      {run && (
        <div role="status" className="flex w-full flex-wrap items-center gap-2">
          <span>{said(run)}</span>
          {busy && (
            <Button
              onClick={() => {
                stop.current = true;
              }}
            >
              Stop
            </Button>
          )}
          {run.over && run.failed.length > 0 && (
            <>
              <ul className="w-full text-brick">
                {run.failed.map(({ shot, problem }) => (
                  <li key={shot.id}>
                    {shot.title}: {problem}
                  </li>
                ))}
              </ul>
              <Button onClick={() => keep(run.failed.map((f) => f.shot))}>Try those again</Button>
            </>
          )}
        </div>
      )}
    </section>
  );
}

function said({ done, total, failed, stopped, over }: Run): string {
  if (!over) return `${done} of ${total} …`;
  const good = done - failed.length;
  const parts = [`${good} of ${total} done`];
  if (failed.length) parts.push(`${failed.length} not, each is safe on the Shelf`);
  if (stopped) parts.push('stopped');
  return `${parts.join('; ')}.`;
}
