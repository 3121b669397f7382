import type { ShotSummary } from '@/core/contracts/shot';
import { Modal } from '../ui/Modal';
import { Hits } from './Hits';

interface Props {
  shot: ShotSummary | null;
  /** To the next or the one before. */
  onStep: (by: 1 | -1) => void;
  onOpen: (shot: ShotSummary) => void;
  onClose: () => void;
}

/** A shot as large as the window lets it be, with what was found in it. */
export function LookLarge({ shot, onStep, onOpen, onClose }: Props) {
  return (
    <Modal open={shot !== null} wide title={shot?.title ?? ''} onClose={onClose}>
      {shot && (
        <button
          type="button"
          aria-label={`${shot.title}, ${shot.width} × ${shot.height}; Enter opens it, the arrow keys go on`}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && !shot.binnedAt) onOpen(shot);
            else if (event.key === ' ') onClose();
            else if (event.key === 'ArrowRight' || event.key === 'ArrowDown') onStep(1);
            else if (event.key === 'ArrowLeft' || event.key === 'ArrowUp') onStep(-1);
            else return;
            event.preventDefault();
          }}
          onDoubleClick={() => !shot.binnedAt && onOpen(shot)}
          className="relative block h-[74vh] w-full rounded-[7px] bg-paper"
        >
          <img
            key={shot.id}
            src={`/api/shots/${shot.id}/picture?format=png`}
            alt=""
            className="size-full object-contain"
          />
          <Hits shot={shot} />
        </button>
      )}
    </Modal>
  );
}
