import { Download, FolderDown } from 'lucide-react';
import { useState } from 'react';
import {
  clipFormatNames,
  clipFormats,
  isFilm,
  type Clip,
  type ClipFormat,
} from '@/core/contracts/clip';
import { writtenSize } from '@/core/clip/size';
import { madeUrl } from '../api/clips';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { ChipRadios } from '../ui/ChipRadios';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { HowFar } from './HowFar';
import { useWriting } from './useWriting';

const formats = clipFormatNames.map((value) => ({ value, label: clipFormats[value].label }));
const icon = { size: 16, strokeWidth: 1.75 };

const optionOf = ({ id, name }: { id: string; name: string }) => (
  <option key={id} value={id}>
    {name}
  </option>
);

/** How and where a clip is kept, and how far that is. */
export function KeepClip({ clip, stored }: { clip: Clip; stored: () => Promise<void> }) {
  const folders = useAnswer(() => api.folders(), 'folders');
  const all = folders.answer?.folders ?? [];
  const [format, setFormat] = useState<ClipFormat>('webm');
  const [percent, setPercent] = useState(100);
  const [rate, setRate] = useState(0);
  const [most, setMost] = useState(0);
  const [folder, setFolder] = useState<string | null>(null);
  const { job, problem, busy, write, stop } = useWriting(clip.id, ({ id, copy, sending }) => {
    announce(copy ? 'Kept.' : sending ? 'On its way.' : 'Written.');
    if (!copy && !sending) window.location.assign(madeUrl(clip.id, id));
    return Promise.resolve();
  });
  const remotes = useAnswer(() => api.remotes(), 'remotes').answer ?? [];
  const place = folder ?? all.find((f) => f.isDefault)?.id ?? all[0]?.id ?? null;
  const remoteId = remotes.find(({ id }) => id === place)?.id ?? null;
  const { width, height } = writtenSize(clip.leaves, percent, isFilm(format));
  const go = async (to: { folderId: string | null; remoteId?: string | null }) => {
    if (busy) return;
    await stored();
    await write({ ...to, format, percent, rate: rate || null, most: most || null });
  };
  const keep = () => void go({ folderId: remoteId ? null : place, remoteId });
  const key = useKeyOf('keep.go');
  useAction('keep.go', keep, { enabled: place !== null });
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
          value={place ?? ''}
          onChange={(event) => setFolder(event.target.value)}
          className="min-h-8 rounded-[6px] border border-edge bg-card px-2"
        >
          {all.map(optionOf)}
          {remotes.length > 0 && (
            <optgroup label="Remote folders">{remotes.map(optionOf)}</optgroup>
          )}
        </select>
      </label>
      <div className="flex flex-wrap gap-2">
        <Button
          look="next"
          hint={keyLabel(key)}
          icon={<FolderDown {...icon} />}
          disabled={busy || place === null}
          onClick={keep}
        >
          Keep
        </Button>
        <Button
          icon={<Download {...icon} />}
          disabled={busy}
          onClick={() => void go({ folderId: null })}
        >
          Download
        </Button>
      </div>
      {(problem ?? folders.problem) && <Problem>{problem ?? folders.problem}</Problem>}
      {job && <HowFar job={job} written="Written" onStop={stop} />}
    </section>
  );
}
