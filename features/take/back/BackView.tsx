import { useEffect, useRef, useState } from 'react';
import { fitScale } from '@/core/geometry/rect';
import { messageOf } from '../../api/ask';
import { useKey } from '../../keys/useKey';
import { Problem } from '../../ui/Problem';
import { useSize } from '../../ui/useSize';
import { Footer, Said } from '../choose/Footer';
import { takeMoments } from '../several';
import { sources } from '../sources/list';
import { useTake } from '../takeState';
import { goTo, momentOf, toggleMoment, wantedOf, type Film } from './backState';
import { FilmStrip } from './FilmStrip';
import { agoOf, clockOf } from './moments';

/** The picture is fetched no wider than it can be seen, px. */
const WIDEST = 1920;

/** The moments that are held, to be stepped through; Enter takes the one that is seen. */
export function BackView({ film }: { film: Film }) {
  const problem = useTake((s) => s.problem);
  const surface = useRef<HTMLDivElement>(null);
  const take = () => void takeMoments();
  useEffect(() => surface.current?.focus(), []);
  useKey('arrowleft', () => goTo(film.at - 1));
  useKey('arrowright', () => goTo(film.at + 1));
  useKey('home', () => goTo(0));
  useKey('end', () => goTo(film.moments.length - 1));
  useKey('space', toggleMoment);
  useKey('enter', take);
  const seen = momentOf(film);
  const wanted = wantedOf(film).length;
  if (!seen) return null;
  return (
    <div
      ref={surface}
      tabIndex={-1}
      data-home
      role="group"
      aria-label="Look back"
      className="flex min-h-0 grow flex-col outline-none"
    >
      <div className="mb-3 flex flex-wrap items-baseline gap-x-3">
        <h1 className="font-name text-lg">Look back</h1>
        <p className="text-soft">
          ← → step · Space adds a moment · a kind at the left chooses a part of this one
        </p>
      </div>
      {problem && <Problem>{problem}</Problem>}
      <Large film={film} id={seen.id} />
      <FilmStrip film={film} />
      <Footer take={wanted > 1 ? `Take ${wanted} moments` : 'Take this moment'} onTake={take}>
        <Said label="The moment in sight">
          {`${film.at + 1} of ${film.moments.length} · ${agoOf(seen, film)} · ${clockOf(seen)}`}
          {film.chosen.includes(seen.id) && ' · chosen'}
        </Said>
      </Footer>
    </div>
  );
}

/** The moment in sight, as large as it fits. */
function Large({ film, id }: { film: Film; id: number }) {
  const [frame, space] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [shown, setShown] = useState<{ id: number; width: number; height: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { source } = film;
  const waits = useRef(Promise.resolve());
  useEffect(() => {
    let current = true;
    const show = async () => {
      // Whoever holds an arrow down steps past most of them.
      if (!current) return;
      const picture = await sources[source].holder?.look(id, WIDEST);
      const element = canvas.current;
      if (picture && element && current) {
        const { width, height } = picture;
        Object.assign(element, { width, height });
        element.getContext('2d')?.drawImage(picture, 0, 0);
        setShown({ id, width, height });
        setProblem(null);
      }
      picture?.close();
    };
    waits.current = waits.current
      .then(show)
      .catch((error: unknown) => current && setProblem(messageOf(error)))
      .then(() => undefined);
    return () => {
      current = false;
    };
  }, [source, id]);
  const scale = shown && space.width > 0 ? fitScale(shown, space, 1) : 0;
  return (
    <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
      <canvas
        ref={canvas}
        role="img"
        aria-label="The moment in sight"
        data-moment={shown?.id}
        className="col-start-1 row-start-1 rounded-[4px] shadow-picture"
        style={shown ? { width: shown.width * scale, height: shown.height * scale } : { width: 0 }}
      />
      {problem && <Problem>{problem}</Problem>}
    </div>
  );
}
