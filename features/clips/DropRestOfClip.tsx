import { useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import type { Besides } from '@/core/contracts/shot';
import type { Cuts } from '@/core/clip/cuts';
import { isUntouched } from '@/core/document/atPicture';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { Elsewhere } from '../mark/panels/Elsewhere';
import { dropOwnDraft } from '../outbox/drafts';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { HowFar } from './HowFar';
import { useWriting } from './useWriting';

interface Props {
  clip: Clip;
  cuts: Cuts;
  /** Every cut is stored. */
  stored: () => Promise<void>;
}

/** Drops for good what the clip does not show. Asked once; nothing brings it back. */
export function DropRestOfClip({ clip, cuts, stored }: Props) {
  const [besides, setBesides] = useState<Besides | null>(null);
  const [open, setOpen] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const { job, problem, busy, write, stop } = useWriting(clip.id, async () => {
    await dropOwnDraft(clip.id);
    // Nothing of the film that was is left in the page.
    window.location.reload();
  });
  const isWhole =
    cuts.away.length === 0 && cuts.speeds === undefined && isUntouched(clip.document, clip);
  if (isWhole) return null;
  const ask = () => {
    setWrong(null);
    setBesides(null);
    setOpen(true);
    api.besides(clip.id).then(setBesides, (error: unknown) => setWrong(messageOf(error)));
  };
  const drop = () =>
    write(async () => {
      await stored();
      const now = await api.clip(clip.id);
      if (now.state !== 'ready') throw new Error('The clip is not ready.');
      const { revision, marksRevision } = now;
      return api.dropRestOfClip(clip.id, { revision, marksRevision });
    });
  const said = wrong ?? problem;
  return (
    <>
      <Button look="quiet" className="self-start text-brick" onClick={ask}>
        Drop the rest for good …
      </Button>
      <Modal
        open={open}
        title="Drop the rest for good?"
        description="The film is written anew as it is shown now: what is cut away, lies outside or under Hide marks is erased, with its sound, and what lies on it becomes part of its pictures. This cannot be undone."
        onClose={() => setOpen(false)}
      >
        {said && <Problem>{said}</Problem>}
        {besides && <Elsewhere besides={besides} />}
        <p className="mb-3">Stills that were picked from it stay as they are.</p>
        {job && <HowFar job={job} written="Dropped" onStop={stop} />}
        <div className="mt-3 flex flex-wrap justify-end gap-2">
          <Button onClick={() => setOpen(false)}>{busy ? 'Close' : 'Leave it'}</Button>
          <Button
            disabled={busy || besides === null || job?.state === 'done'}
            className="!border-brick text-brick"
            onClick={() => void drop()}
          >
            {busy ? 'Dropping …' : 'Drop it'}
          </Button>
        </div>
      </Modal>
    </>
  );
}
