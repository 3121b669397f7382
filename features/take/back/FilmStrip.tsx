import { Check } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { classes } from '../../ui/classes';
import { sources } from '../sources/list';
import type { HeldMoment } from '../sources/contract';
import { goTo, type Film } from './backState';
import { agoOf } from './moments';

/** Of a small picture, px. */
const WIDE = 132;
const FINER = 2;

/** All moments, small, in a row; the one in sight stays in sight. */
export function FilmStrip({ film }: { film: Film }) {
  const { moments, at, chosen } = film;
  return (
    <ol
      aria-label="Moments, oldest first"
      className="mt-3 flex shrink-0 gap-2 overflow-x-auto px-1 pb-1"
    >
      {moments.map((moment, i) => (
        <Small
          key={moment.id}
          film={film}
          moment={moment}
          seen={i === at}
          chosen={chosen.includes(moment.id)}
          act={() => goTo(i)}
        />
      ))}
    </ol>
  );
}

interface SmallProps {
  film: Film;
  moment: HeldMoment;
  seen: boolean;
  chosen: boolean;
  act: () => void;
}

function Small({ film, moment, seen, chosen, act }: SmallProps) {
  const item = useRef<HTMLLIElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { source } = film;
  const { id } = moment;
  useEffect(() => {
    if (seen) item.current?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [seen]);
  useEffect(() => {
    const element = item.current;
    if (!element) return;
    const draw = async () => {
      const picture = await sources[source].holder?.look(id, WIDE * FINER);
      const small = canvas.current;
      if (picture && small) {
        Object.assign(small, { width: picture.width, height: picture.height });
        small.getContext('2d')?.drawImage(picture, 0, 0);
      }
      picture?.close();
    };
    // Most of them are never scrolled to.
    const watcher = new IntersectionObserver(([entry]) => {
      if (!entry?.isIntersecting) return;
      watcher.disconnect();
      void draw().catch(() => undefined);
    });
    watcher.observe(element);
    return () => watcher.disconnect();
  }, [source, id]);
  const said = agoOf(moment, film);
  return (
    <li ref={item} className="shrink-0">
      <button
        type="button"
        tabIndex={-1}
        aria-current={seen}
        aria-label={chosen ? `${said}, chosen` : said}
        onClick={act}
        className={classes(
          'relative block rounded-[6px] border-2 bg-card p-0.5',
          seen ? 'border-petrol' : 'border-transparent hover:border-edge',
        )}
      >
        <canvas ref={canvas} aria-hidden className="block h-[74px] w-[132px] object-contain" />
        <span
          className={classes(
            'block text-center font-measure text-[13px]',
            seen ? 'text-ink' : 'text-soft',
          )}
        >
          {said}
        </span>
        {chosen && (
          <span className="absolute top-1 right-1 grid size-5 place-items-center rounded-full bg-petrol text-card">
            <Check size={14} strokeWidth={2.5} aria-hidden />
          </span>
        )}
      </button>
    </li>
  );
}
