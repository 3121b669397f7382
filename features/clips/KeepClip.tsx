import { Download, FolderDown, Mail } from 'lucide-react';
import { useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, isFilm, recordedAs } from '@/core/contracts/clipCopy';
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

/** How and where a clip is kept, and how far that is. */
export function KeepClip({ clip, cuts, stored }: Props) {
  const places = usePlaces();
  const { place, remoteId } = places;
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
  const keep = () => void go('place', { folderId: remoteId ? null : place, remoteId });
  const key = useKeyOf('keep.go');
  useAction('keep.go', keep, { enabled: place !== null });
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
          disabled={busy || place === null}
          onClick={keep}
        >
          Keep
        </Button>
        <Button
          icon={<Download {...icon} />}
          disabled={busy}
          onClick={() => void go('download', { folderId: null })}
        >
          Download
        </Button>
        <Button
          icon={<Mail {...icon} />}
          disabled={busy}
          onClick={() => void go('mail', { folderId: null })}
        >
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
  const go = async (to: To, place: { folderId: string | null; remoteId?: string | null }) => {
    if (writing.busy) return;
    setAsked({ to, type, name: `${safeName(leavingTitle(clip))}.${extension}` });
    await writing.write(async () => {
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
  const place = chosen ?? all.find((f) => f.isDefault)?.id ?? all[0]?.id ?? null;
  const remoteId = remotes.find(({ id }) => id === place)?.id ?? null;
  return { all, remotes, place, remoteId, choose, problem: folders.problem };
}

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
