import { ArrowDownToLine, Pause, SquareDashedMousePointer } from 'lucide-react';
import { useEffect, useRef } from 'react';
import type { Way } from '@/core/contracts/way';
import { useKey } from '../../keys/useKey';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Problem } from '../../ui/Problem';
import { Footer, Said } from '../choose/Footer';
import { RegionMode } from '../choose/RegionMode';
import { sources } from '../sources/list';
import { takeWatched } from '../several';
import { framesIn, useLong } from './state';
import { scrollsByItself } from './scroller';
import { chooseArea, toggleScrolling, watchArea } from './watch';

/** A long page while it is scrolled: what is watched, what is had of it, and the next step. */
export function LongView({ way }: { way: Way }) {
  const { progress, scrolling, said, problem, choosing } = useLong();
  const { Live } = sources[way.source];
  const byItself = scrollsByItself(way);
  const take = () => void takeWatched();
  useKey('enter', take, { enabled: !choosing });
  useKey('space', toggleScrolling, { enabled: byItself && !choosing });
  if (choosing) {
    const region: Way = { ...way, kind: 'region', fromLast: false, atOnce: false };
    return (
      <>
        <div className="mb-3 flex flex-wrap items-center gap-x-3">
          <h1 className="font-name text-lg">What is scrolled?</h1>
          <p className="text-soft">Drag over it; that alone is watched.</p>
        </div>
        <RegionMode choosing={{ way: region, stilled: choosing }} parts={[]} instead={area} />
      </>
    );
  }
  return (
    <>
      <div className="flex min-h-0 grow gap-4">
        <div className="flex min-w-0 grow flex-col">
          <Live />
        </div>
        <Film />
      </div>
      {problem && <Problem>{problem}</Problem>}
      <Footer take="Take this page" disabled={!progress} onTake={take}>
        {byItself && (
          <Button
            hint="Space"
            icon={scrolling ? <Pause {...icon} /> : <ArrowDownToLine {...icon} />}
            onClick={toggleScrolling}
          >
            {scrolling ? 'Stop scrolling' : 'Let it scroll'}
          </Button>
        )}
        <IconButton
          label="Choose the area"
          className="border border-edge bg-card"
          onClick={chooseArea}
        >
          <SquareDashedMousePointer {...icon} />
        </IconButton>
        <Said label="Long page">{said}</Said>
      </Footer>
    </>
  );
}

const icon = { size: 16, strokeWidth: 1.75 };

/** What is chosen is watched. */
const area = { verb: 'Watch this area', act: watchArea, leave: () => watchArea(null) };

/** What is had so far: the pieces one below the other, a gap between them. */
function Film() {
  const film = useLong((s) => s.film);
  const progress = useLong((s) => s.progress);
  const size = progress?.pieces[0]?.size;
  const frames = progress ? framesIn(progress) : 0;
  return (
    <section aria-label="What is had" className="flex w-[210px] shrink-0 flex-col">
      <h2 className="font-bold">What is had</h2>
      <p className="mb-2 font-measure text-[13px] text-soft">
        {size ? `${size.width} × ${size.height} px` : 'Nothing yet'}
        <br />
        {frames > 0 && `${frames} pictures`}
      </p>
      <div className="min-h-0 grow overflow-hidden rounded-[6px]">
        {film.map((picture, i) => (
          <div key={i}>
            {i > 0 && (
              <p className="border-t-2 border-dashed border-brick py-1 text-[13px] text-brick">
                A gap: scroll back a little
              </p>
            )}
            <FilmPiece picture={picture} />
          </div>
        ))}
      </div>
    </section>
  );
}

function FilmPiece({ picture }: { picture: ImageBitmap }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    if (!element || picture.width === 0) return;
    Object.assign(element, { width: picture.width, height: picture.height });
    element.getContext('2d')?.drawImage(picture, 0, 0);
  }, [picture]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      className="block shadow-picture"
      style={{ width: picture.width / 2, height: picture.height / 2 }}
    />
  );
}
