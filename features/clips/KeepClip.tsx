import { Download, FolderDown, Mail } from 'lucide-react';
import { useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, isFilm, recordedAs } from '@/core/contracts/clipCopy';
import type { Folder } from '@/core/contracts/folder';
import type { Cuts } from '@/core/clip/cuts';
import { leavingTitle } from '@/core/keep/leaving';
import { safeName } from '@/core/naming/safeName';
import { madeUrl } from '../api/clips';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { saveBlob } from '../pictures/saveBlob';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { formatBytes } from '../ui/format';
import { Problem } from '../ui/Problem';
import { ClipWish, type Wish } from './ClipWish';
import { HowFar } from './HowFar';
import { useWriting } from './useWriting';

const icon = { size: 16, strokeWidth: 1.75 };
/** Whoever tries several forms is not asked for each, ms. */
const GUESS_AFTER = 1_500;
/** Of 25 MB, which many take, a message packs a third more (RFC 2045, §6.8), bytes. */
const MAIL_TAKES = 18e6;

const optionOf = ({ id, name }: { id: string; name: string }) => (
  <option key={id} value={id}>
    {name}
  </option>
);

interface Props {
  clip: Clip;
  /** As they are now. */
  cuts: Cuts;
  /** All is stored that was changed. */
  stored: () => Promise<void>;
}

type To = 'place' | 'download' | 'mail';
interface Where {
  folderId: string | null;
  remoteId?: string | null;
}
const nowhere = () => Promise.resolve<Where>({ folderId: null });

/** How and where a clip is kept, and how far that is. */
export function KeepClip({ clip, cuts, stored }: Props) {
  const places = usePlaces();
  const [wish, setWish] = useState<Wish>({
    ...{ format: recordedAs(clip) ?? 'webm', percent: 100, rate: 0, most: 0, sound: 'unhidden' },
    fine: false,
  });
  const { format, percent, sound } = wish;
  const fine = wish.fine && clip.fineColours && isFilm(format);
  const form = { format, percent, sound, fine, rate: wish.rate || null };
  const size = useAnswer(
    async (signal) => {
      await stored();
      return api.clipSize(clip.id, form, signal);
    },
    JSON.stringify([form, cuts, clip.marksRevision]),
    { after: GUESS_AFTER },
  );
  const { asked, writing, go } = useHandOut(clip, stored, { ...form, most: wish.most || null });
  const { job, problem, busy } = writing;
  const keep = () => void go('place', places.decided);
  const key = useKeyOf('keep.go');
  useAction('keep.go', keep);
  const expected = Math.min(size.answer ?? 0, wish.most * 1e6 || Infinity);
  return (
    <section aria-label="Keep" className="flex flex-col gap-2">
      <h2 className="font-name text-base">Keep</h2>
      <ClipWish
        {...{ clip, wish, size }}
        set={(change) => setWish((before) => ({ ...before, ...change }))}
      />
      <Places {...places} />
      <div className="flex flex-wrap gap-2">
        <Button
          look="next"
          hint={keyLabel(key)}
          icon={<FolderDown {...icon} />}
          disabled={busy}
          onClick={keep}
        >
          Keep
        </Button>
        <Button
          icon={<Download {...icon} />}
          disabled={busy}
          onClick={() => void go('download', nowhere)}
        >
          Download
        </Button>
        <Button icon={<Mail {...icon} />} disabled={busy} onClick={() => void go('mail', nowhere)}>
          Mail
        </Button>
      </div>
      {(problem ?? places.problem) && <Problem>{problem ?? places.problem}</Problem>}
      {job && (
        <HowFar
          job={job}
          written={asked.to === 'mail' ? 'In a message, for your mail program' : 'Written'}
          file={{ ...asked, url: madeUrl(clip.id, job.id) }}
          onStop={writing.stop}
        />
      )}
      {expected > MAIL_TAKES && (
        <p className="text-[13px] text-soft">
          Many mail services take no more than {formatBytes(MAIL_TAKES)}.
        </p>
      )}
    </section>
  );
}

/** Writes a clip, and brings it where it is wanted. */
function useHandOut(
  clip: Clip,
  stored: () => Promise<void>,
  wish: Omit<Parameters<typeof api.writeClip>[1], 'folderId' | 'remoteId'>,
) {
  const { extension, type } = clipFormats[wish.format];
  const [asked, setAsked] = useState<{ to: To; type: string; name: string }>({
    ...{ to: 'place', type, name: '' },
  });
  const writing = useWriting(clip.id, async ({ id, copy, sending }) => {
    announce(copy ? 'Kept.' : sending ? 'On its way.' : 'Written.');
    if (asked.to === 'download') window.location.assign(madeUrl(clip.id, id));
    if (asked.to !== 'mail') return;
    const { blob, name } = await api.mailClip(clip.id, { job: id });
    saveBlob(blob, name);
  });
  const go = async (to: To, where: () => Promise<Where>) => {
    if (writing.busy) return;
    setAsked({ to, type, name: `${safeName(leavingTitle(clip))}.${extension}` });
    await writing.write(async () => {
      const place = await where();
      await stored();
      return api.writeClip(clip.id, { ...place, ...wish });
    });
  };
  return { asked, writing, go };
}

/** The folders here and elsewhere, and the one that is chosen. */
function usePlaces() {
  const folders = useAnswer(() => api.folders(), 'folders');
  const all = folders.answer?.folders ?? [];
  const remotes = useAnswer(() => api.remotes(), 'remotes').answer ?? [];
  const [chosen, choose] = useState<string | null>(null);
  const place = chosen ?? usual(all);
  /** Who is quicker than the list of folders waits for it. */
  const decided = async (): Promise<Where> => {
    const folderId = place ?? usual((await api.folders()).folders);
    if (folderId === null) throw new Error('No folder is set up yet. Make one in Setup › Folders.');
    return remotes.some(({ id }) => id === folderId)
      ? { folderId: null, remoteId: folderId }
      : { folderId };
  };
  return { all, remotes, place, decided, choose, problem: folders.problem };
}

const usual = (folders: Folder[]): string | null =>
  (folders.find((f) => f.isDefault) ?? folders[0])?.id ?? null;

function Places({ all, remotes, place, choose }: ReturnType<typeof usePlaces>) {
  return (
    <label className="flex flex-col gap-1">
      <span>Folder</span>
      <select
        value={place ?? ''}
        onChange={(event) => choose(event.target.value)}
        className="min-h-8 rounded-[6px] border border-edge bg-card px-2"
      >
        {all.map(optionOf)}
        {remotes.length > 0 && <optgroup label="Remote folders">{remotes.map(optionOf)}</optgroup>}
      </select>
    </label>
  );
}
