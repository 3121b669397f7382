import { Download, FolderDown, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import {
  clipFormatNames,
  clipFormats,
  isFilm,
  type Clip,
  type ClipFormat,
  type ClipJob,
} from '@/core/contracts/clip';
import { writtenSize } from '@/core/clip/size';
import { messageOf } from '../api/ask';
import { madeUrl } from '../api/clips';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { ChipRadios } from '../ui/ChipRadios';
import { formatBytes } from '../ui/format';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';

const LOOK_AGAIN = 400;
const formats = clipFormatNames.map((value) => ({ value, label: clipFormats[value].label }));
const icon = { size: 16, strokeWidth: 1.75 };

/** How and where a clip is kept, and how far that is. */
export function KeepClip({ clip, stored }: { clip: Clip; stored: () => Promise<void> }) {
  const folders = useAnswer(() => api.folders(), 'folders');
  const all = folders.answer?.folders ?? [];
  const [format, setFormat] = useState<ClipFormat>('webm');
  const [percent, setPercent] = useState(100);
  const [rate, setRate] = useState(0);
  const [most, setMost] = useState(0);
  const [folder, setFolder] = useState<string | null>(null);
  const { job, problem, write, stop } = useWriting(clip.id);
  const folderId = folder ?? all.find((f) => f.isDefault)?.id ?? all[0]?.id ?? null;
  const { width, height } = writtenSize(clip.leaves, percent, isFilm(format));
  const busy = job?.state === 'waiting' || job?.state === 'going on';
  const go = async (to: string | null) => {
    if (busy) return;
    await stored();
    await write({ folderId: to, format, percent, rate: rate || null, most: most || null });
  };
  const key = useKeyOf('keep.go');
  useAction('keep.go', () => void go(folderId), { enabled: folderId !== null });
  return (
    <section aria-label="Keep" className="flex flex-col gap-2">
      <h2 className="font-name text-base">Keep</h2>
      <ChipRadios words label="As" value={format} options={formats} onChange={setFormat} />
      <p className="text-[13px] text-soft">
        {clipFormats[format].note} · {width} × {height} px
      </p>
      <NumberInput label="Size, percent" value={percent} min={5} max={100} onCommit={setPercent} />
      <NumberInput
        label="Pictures a second"
        value={rate}
        min={0}
        max={60}
        empty
        onCommit={setRate}
      />
      <NumberInput label="At most, MB" value={most} min={0} max={10_000} empty onCommit={setMost} />
      <label className="flex flex-col gap-1">
        <span>Folder</span>
        <select
          value={folderId ?? ''}
          onChange={(event) => setFolder(event.target.value)}
          className="min-h-8 rounded-[6px] border border-edge bg-card px-2"
        >
          {all.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <div className="flex flex-wrap gap-2">
        <Button
          look="next"
          hint={keyLabel(key)}
          icon={<FolderDown {...icon} />}
          disabled={busy || folderId === null}
          onClick={() => void go(folderId)}
        >
          Keep
        </Button>
        <Button icon={<Download {...icon} />} disabled={busy} onClick={() => void go(null)}>
          Download
        </Button>
      </div>
      {(problem ?? folders.problem) && <Problem>{problem ?? folders.problem}</Problem>}
      {job && <HowFar job={job} onStop={stop} />}
    </section>
  );
}

function HowFar({ job, onStop }: { job: ClipJob; onStop: () => void }) {
  if (job.state === 'stopped') return <Problem>{job.problem}</Problem>;
  if (job.state === 'done') {
    return (
      <p role="status" className="text-[13px] break-words">
        <span className="font-bold">{job.copy ? 'Kept' : 'Written'}</span>{' '}
        {job.bytes !== null && formatBytes(job.bytes)}
        {job.copy && <span className="block font-measure">{job.copy.path}</span>}
      </p>
    );
  }
  const percent = Math.round(100 * job.progress);
  const left = job.left === null ? '' : ` · ${Math.ceil(job.left)} s left`;
  return (
    <div className="flex items-center gap-2">
      <div className="grow text-[13px]">
        <div
          role="progressbar"
          aria-label="Written"
          aria-valuenow={percent}
          className="mb-1 h-2.5 rounded-full bg-tint"
        >
          <div className="h-full rounded-full bg-petrol" style={{ width: `${percent}%` }} />
        </div>
        {percent} %{left}
      </div>
      <Button icon={<Square {...icon} />} onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}

type Wish = Parameters<typeof api.writeClip>[1];

/** A file of a clip while it is written. */
function useWriting(clip: string) {
  const [job, setJob] = useState<ClipJob | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [fetched, setFetched] = useState(false);
  const { id, state } = job ?? {};
  useEffect(() => {
    if (!id || state === 'done' || state === 'stopped') return;
    const timer = setInterval(() => {
      api.clipWriting(clip, id).then(setJob, (error: unknown) => setProblem(messageOf(error)));
    }, LOOK_AGAIN);
    return () => clearInterval(timer);
  }, [clip, id, state]);
  useEffect(() => {
    if (!id || state !== 'done') return;
    announce(fetched ? 'Written.' : 'Kept.');
    if (fetched) window.location.assign(madeUrl(clip, id));
  }, [clip, id, state, fetched]);
  return {
    ...{ job, problem },
    write: async (wish: Wish) => {
      setProblem(null);
      setFetched(wish.folderId === null);
      try {
        setJob(await api.writeClip(clip, wish));
      } catch (error) {
        setJob(null);
        setProblem(messageOf(error));
      }
    },
    stop: () => void (id && api.stopWriting(clip, id).catch(() => undefined)),
  };
}
