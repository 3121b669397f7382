import { useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { Thumbnail } from '../pictures/Thumbnail';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { chosenLook, classes } from '../ui/classes';

interface Props {
  open: boolean;
  onAdd: (shots: readonly ShotSummary[]) => void;
  onClose: () => void;
}

const MOST = 60;

/** Shots of the Shelf, to be added to a guide in the order in which they are pressed. */
export const AddShots = ({ open, onAdd, onClose }: Props) => (
  <Modal
    open={open}
    wide
    title="Shots from the Shelf"
    description="They come at the end of the guide, in the order in which you press them."
    onClose={onClose}
  >
    <Choice onAdd={onAdd} />
  </Modal>
);

function Choice({ onAdd }: Pick<Props, 'onAdd'>) {
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState<readonly ShotSummary[]>([]);
  const { answer, problem } = useAnswer(
    (signal) => api.findShots({ q: typed, order: 'day', limit: MOST, bin: false }, signal),
    typed,
    { after: 200, keep: true },
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen.length) onAdd(chosen);
      }}
    >
      <div className="mb-3 flex gap-2">
        <input
          aria-label="Search the Shelf"
          placeholder="Search the Shelf"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="h-9 grow rounded-[7px] border border-edge bg-card px-3"
        />
        <Button look="next" type="submit" disabled={chosen.length === 0}>
          {chosen.length === 1 ? 'Add 1 shot' : `Add ${chosen.length} shots`}
        </Button>
      </div>
      {problem && <Problem>{problem}</Problem>}
      <ul className="grid max-h-[60vh] grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-2 overflow-auto">
        {answer?.shots.map((shot) => {
          const nth = chosen.findIndex(({ id }) => id === shot.id);
          return (
            <li key={shot.id}>
              <button
                type="button"
                aria-pressed={nth >= 0}
                onClick={() =>
                  setChosen(nth < 0 ? [...chosen, shot] : chosen.filter(({ id }) => id !== shot.id))
                }
                className={classes(
                  'block w-full rounded-[8px] border p-1.5 text-left',
                  chosenLook(nth >= 0),
                )}
              >
                <span className="block h-24">
                  <Thumbnail shot={shot} />
                </span>
                <span className="block truncate">
                  {nth >= 0 && <b>{nth + 1}. </b>}
                  {shot.title}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </form>
  );
}
