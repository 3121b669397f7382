import { useState } from 'react';
import type { Besides } from '@/core/contracts/shot';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { dropOwnDraft } from '../../outbox/drafts';
import { forget } from '../../outbox/memory';
import { dismiss } from '../../notices/noticeStore';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import { Problem } from '../../ui/Problem';
import { forgetCopiedMarks } from '../actions/arrange';
import { useDocument } from '../session/document';
import { whenSettled } from '../../outbox/settling';
import { Elsewhere } from './Elsewhere';

/** Drops for good what the shot does not show. Asked once; nothing brings it back. */
export function DropRest({ onDone }: { onDone: () => void }) {
  const id = useDocument((s) => s.id);
  const [besides, setBesides] = useState<Besides | null>(null);
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = () => {
    setProblem(null);
    setOpen(true);
    setBesides(null);
    whenSettled(id)
      .then(() => api.besides(id))
      .then(setBesides, (error: unknown) => setProblem(messageOf(error)));
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
  const sharing = besides?.sharing ?? 0;
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
        {besides && <Elsewhere besides={besides} />}
        {sharing > 0 && (
          <p className="mb-3">
            {sharing === 1
              ? 'One other shot shows the same frame and would keep it.'
              : `${sharing} other shots show the same frame and would keep it.`}
          </p>
        )}
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={() => setOpen(false)}>Leave it</Button>
          {sharing > 0 && (
            <Button disabled={busy} onClick={() => void drop(false)}>
              Drop here only
            </Button>
          )}
          <Button
            disabled={busy || besides === null}
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
