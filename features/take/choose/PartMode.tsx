import { useCallback, useState } from 'react';
import type { Point } from '@/core/geometry/point';
import { centre } from '@/core/geometry/rect';
import { isLong } from '@/core/geometry/size';
import { isArrow } from '@/core/region/selection';
import type { Part } from '@/core/screen/parts/described';
import { partsAt } from '@/core/screen/parts';
import { verbOf } from '../kinds';
import type { Choosing } from '../takeState';
import { choose } from '../takeStore';
import { Footer, Said } from './Footer';
import { Outline } from './Outline';
import { StillPicture } from './StillPicture';
import { useEveryKey } from '../../keys/useKey';

interface Props {
  choosing: Choosing;
  /** Null while they are being found. */
  parts: readonly Part[] | null;
}

/** The button, row or panel under the pointer; the wheel or arrow keys go out and in. */
export function PartMode({ choosing, parts }: Props) {
  const { picture } = choosing.stilled;
  const [at, setAt] = useState<Point | null>(null);
  const [level, setLevel] = useState(0);
  const { width, height } = picture;
  // Of a long one the beginning is what is seen.
  const middle = centre({ x: 0, y: 0, width, height: isLong(picture) ? width : height });
  const chain = parts ? partsAt(parts, at ?? middle) : [];
  const depth = Math.min(level, Math.max(0, chain.length - 1));
  const part = chain[depth] ?? null;
  const step = useCallback(
    (by: 1 | -1) => setLevel(Math.min(Math.max(0, depth + by), Math.max(0, chain.length - 1))),
    [depth, chain.length],
  );
  const take = useCallback(() => {
    if (!part) return;
    const { words: named, ...crop } = part;
    choose({ crop, ...(named && { part: named }) });
  }, [part]);
  /** Left and right go from part to part, in the order one reads. */
  const goOn = useCallback(
    (by: 1 | -1) => {
      const order = [...(parts ?? [])].sort((a, b) => a.y - b.y || a.x - b.x);
      if (order.length === 0) return;
      const here = order.findIndex((r) => r === part);
      const next = order[(here + by + order.length) % order.length];
      if (!next) return;
      setAt(centre(next));
      setLevel(Math.max(0, partsAt(parts ?? [], centre(next)).indexOf(next)));
    },
    [parts, part],
  );
  useEveryKey(
    useCallback(
      ({ key }) => {
        if (key === 'Enter') take();
        else if (!isArrow(key)) return false;
        else if (key === 'ArrowUp') step(1);
        else if (key === 'ArrowDown') step(-1);
        else goOn(key === 'ArrowRight' ? 1 : -1);
        return true;
      },
      [take, step, goOn],
    ),
  );
  const words =
    part && [part.words, `${part.width} × ${part.height} px`].filter(Boolean).join(' · ');
  return (
    <>
      <StillPicture
        picture={picture}
        cursor={() => 'pointer'}
        onMove={(touch) => {
          if (part && at && !samePart(parts ?? [], at, touch.at)) setLevel(0);
          setAt(touch.at);
        }}
        onUp={take}
        onWheel={step}
        follow={part}
        overlay={(scale) => (
          <Outline region={part} frame={picture} scale={scale} label={words ?? undefined} />
        )}
      />
      <Footer take={`${verbOf(choosing.way)} this part`} disabled={!part} onTake={take}>
        <Said label="Part">
          {parts === null
            ? 'Looking for parts …'
            : part
              ? `${words ?? ''} · ${depth + 1} of ${chain.length} around this place`
              : 'No part here. Move on, or use Region.'}
        </Said>
      </Footer>
    </>
  );
}

/** True while the innermost part stays the same, so that a chosen level stays too. */
const samePart = (parts: readonly Part[], a: Point, b: Point): boolean =>
  partsAt(parts, a)[0] === partsAt(parts, b)[0];
