import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { Progress } from '../ui/Progress';

const LOOK_AGAIN = 400;

/** How far the clips are written that move in a guide, while it is written. */
export function FilmsOfIt({ id }: { id: string }) {
  const { answer } = useAnswer((signal) => api.guideFilms(id, signal), id, {
    next: () => LOOK_AGAIN,
  });
  if (!answer) return null;
  return (
    <div>
      <p className="text-[13px] text-soft">Its clips are written</p>
      <Progress label="Clips written" share={answer.progress} left={answer.left} />
    </div>
  );
}
