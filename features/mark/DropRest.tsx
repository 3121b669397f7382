import { useState } from 'react';
import { api, messageOf } from '../api/client';
import { dropOwnDraft } from '../outbox/drafts';
import { forget } from '../outbox/memory';
import { dismiss } from '../shell/noticeStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { forgetCopiedMarks } from './arrange';
import { useSession } from './session';
import { whenSettled } from './storing';

/** Drops for good what the shot does not show. Asked once; nothing brings it back. */
export function DropRest({ onDone }: { onDone: () => void }) {
  const id = useSession((s) => s.id);
  const [sharing, setSharing] = useState<number | null>(null);
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = () => {
    setProblem(null);
    setOpen(true);
    setSharing(null);
    whenSettled(id)
      .then(() => api.sharing(id))
      .then(setSharing, (error: unknown) => setProblem(messageOf(error)));
  };
  const drop = async (others: boolean) => {
    setBusy(true);
    try {
      await whenSettled(id);
      const { revision } = await api.shot(id);
      await api.dropRest(id, revision, others);
      forget(id);
      forgetCopiedMarks();
      dismiss(`take ${id}`);
      await dropOwnDraft(id);
      setOpen(false);
      onDone();
    } catch (error) {
      setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <Button look="quiet" className="mt-1 text-brick" onClick={ask}>
        Drop the rest for good …
      </Button>
      <Modal
        open={open}
        title="Drop the rest for good?"
        description="What lies outside the view and under Hide marks is erased: from the frame, the thumbnail, the steps of undo and this browser. Marks under a Hide mark become part of the picture. This cannot be undone."
        onClose={() => setOpen(false)}
      >
        {problem && <Problem>{problem}</Problem>}
        {sharing !== null && sharing > 0 && (
          <p className="mb-3">
            {sharing === 1
              ? 'One other shot shows the same frame and would keep it.'
              : `${sharing} other shots show the same frame and would keep it.`}
          </p>
        )}
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={() => setOpen(false)}>Leave it</Button>
          {sharing !== null && sharing > 0 && (
            <Button disabled={busy} onClick={() => void drop(false)}>
              Drop here only
            </Button>
          )}
          <Button
            disabled={busy || sharing === null}
            className="!border-brick text-brick"
            onClick={() => void drop(true)}
          >
            {busy ? 'Dropping …' : sharing ? 'Drop in all of them' : 'Drop it'}
          </Button>
        </div>
      </Modal>
    </>
  );
}
