import { useEffect, useRef, useState } from 'react';
import { messageOf } from '../../api/ask';
import { decodeFrame } from '../../pictures/pictures';
import { Button } from '../../ui/Button';
import { Problem } from '../../ui/Problem';
import { formatMoment } from '../../ui/format';
import type { Stilled } from '../sources/contract';
import { takePieces } from '../several';
import { forgetHeld, leftBehind, type HeldLong } from './held';

async function stilledOf({ pieces }: HeldLong): Promise<Stilled[]> {
  const made: Stilled[] = [];
  for (const { bytes, title, provenance } of pieces) {
    const png = new Blob([bytes], { type: 'image/png' });
    made.push({
      ...{ picture: await decodeFrame(png), png, title, provenance },
      ...{ origin: { x: 0, y: 0 }, windows: null, focused: null, pointer: null },
    });
  }
  return made;
}

/** Offers what was had of a long page whose tab went away in the middle. */
export function LeftBehind() {
  const [long, setLong] = useState<HeldLong | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const isTaken = useRef(false);
  useEffect(() => {
    void leftBehind().then(setLong, () => undefined);
  }, []);
  const [first] = long?.pieces ?? [];
  if (!long || !first) return null;
  const over = async () => {
    setLong(null);
    await forgetHeld(long.id);
  };
  const take = async () => {
    // Pressed twice it is taken once, even before it is painted that it is; where it cannot be, it
    // is offered again.
    if (isTaken.current) return;
    isTaken.current = true;
    setLong(null);
    try {
      await takePieces(await stilledOf(long));
      await forgetHeld(long.id);
    } catch (error) {
      isTaken.current = false;
      setLong(long);
      setProblem(messageOf(error));
    }
  };
  return (
    <section
      aria-label="A long page that was not finished"
      className="mt-3 rounded-[9px] border border-line bg-card p-3"
    >
      <div className="flex flex-wrap items-center gap-2">
        <p role="status" className="min-w-0 grow">
          <span className="font-bold">A long page was not finished.</span> {first.width} ×{' '}
          {first.height} px of “{first.title.slice(0, 80)}”,{' '}
          {formatMoment(first.provenance.until ?? first.provenance.takenAt)}
        </p>
        <Button onClick={() => void take()}>Take what was had</Button>
        <Button look="quiet" onClick={() => void over()}>
          Let it go
        </Button>
      </div>
      {problem && <Problem>{problem}</Problem>}
    </section>
  );
}
