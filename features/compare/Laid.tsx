import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState, type CSSProperties } from 'react';
import type { Comparison } from '@/core/contracts/compare';
import { fitScale, union, type Rect } from '@/core/geometry/rect';
import { Button } from '../ui/Button';

export type Way = 'slider' | 'beside' | 'flicker' | 'difference';
export const ways: { way: Way; label: string }[] = [
  { way: 'slider', label: 'One handle' },
  { way: 'beside', label: 'Beside' },
  { way: 'flicker', label: 'In turn' },
  { way: 'difference', label: 'Difference' },
];

interface Props {
  way: Way;
  comparison: Comparison;
  /** Addresses of the two pictures. */
  first: string;
  second: string;
  names: readonly [string, string] | string[];
  outlined: boolean;
  chosen: number | null;
}

const AROUND = 24;

/** Two pictures laid on each other where they show the same, as large as there is room. */
export function Laid(props: Props) {
  const { way, comparison, names } = props;
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setRoom({ width: element.clientWidth, height: element.clientHeight });
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    measure();
    return () => watcher.disconnect();
  }, []);
  const { x, y } = comparison.shift;
  const boxes = {
    first: { x: 0, y: 0, ...comparison.first },
    second: { x, y, ...comparison.second },
  };
  const whole = union([boxes.first, boxes.second]);
  const columns = way === 'beside' ? 2 : 1;
  const free = {
    width: Math.max(1, room.width / columns - AROUND),
    height: Math.max(1, room.height - AROUND - 60),
  };
  const scale = fitScale(whole, free, 1);
  const place = (box: Rect): CSSProperties => ({
    left: (box.x - whole.x) * scale,
    top: (box.y - whole.y) * scale,
    width: box.width * scale,
    height: box.height * scale,
  });
  const sheet = { width: whole.width * scale, height: whole.height * scale };
  const one = <Picture src={props.first} name={names[0] ?? ''} style={place(boxes.first)} />;
  const other = <Picture src={props.second} name={names[1] ?? ''} style={place(boxes.second)} />;
  const outlines = props.outlined && (
    <Outlines places={comparison.places} chosen={props.chosen} place={place} />
  );
  return (
    <div
      ref={frame}
      className="absolute inset-0 flex items-center justify-center gap-3 overflow-hidden"
    >
      {way === 'beside' && (
        <>
          <Sheet size={sheet} name={names[0]}>
            {one}
            {outlines}
          </Sheet>
          <Sheet size={sheet} name={names[1]}>
            {other}
            {outlines}
          </Sheet>
        </>
      )}
      {way === 'slider' && (
        <Slider size={sheet} names={names} one={one} other={other} outlines={outlines} />
      )}
      {way === 'flicker' && (
        <InTurn size={sheet} names={names} one={one} other={other} outlines={outlines} />
      )}
      {way === 'difference' && (
        <Sheet size={sheet} name="Black where they are the same" dark>
          {one}
          <div style={{ mixBlendMode: 'difference', position: 'absolute', inset: 0 }}>{other}</div>
          {outlines}
        </Sheet>
      )}
    </div>
  );
}

const Picture = ({ src, name, style }: { src: string; name: string; style: CSSProperties }) => (
  <img src={src} alt={name} draggable={false} className="absolute max-w-none" style={style} />
);

function Sheet({
  size,
  name,
  dark,
  children,
}: {
  size: CSSProperties;
  name: string | undefined;
  dark?: boolean;
  children: React.ReactNode;
}) {
  return (
    <figure className="flex flex-col gap-1">
      <div
        className={`relative isolate overflow-hidden shadow-picture ${dark ? 'bg-black' : 'bg-card'}`}
        style={size}
      >
        {children}
      </div>
      <figcaption className="max-w-full truncate text-soft">{name}</figcaption>
    </figure>
  );
}

function Outlines({
  places,
  chosen,
  place,
}: {
  places: readonly Rect[];
  chosen: number | null;
  place: (box: Rect) => CSSProperties;
}) {
  return places.map((box, i) => (
    <span
      key={i}
      aria-hidden
      data-place={i}
      className="absolute"
      // Around the place, not over it; two lines, so that one of them is seen on any ground.
      style={{
        ...place(box),
        boxShadow:
          chosen === i
            ? '0 0 0 3px #FFFFFF, 0 0 0 6px #D55E00, 0 0 0 7px #000000'
            : '0 0 0 1px #FFFFFF, 0 0 0 3px #D55E00',
      }}
    />
  ));
}

interface TwoProps {
  size: { width: number; height: number };
  names: Props['names'];
  one: React.ReactNode;
  other: React.ReactNode;
  outlines: React.ReactNode;
}

/** One handle between: left of it the first picture, right of it the second. */
function Slider({ size, names, one, other, outlines }: TwoProps) {
  const [share, setShare] = useState(50);
  const frame = useRef<HTMLDivElement>(null);
  const at = `${share}%`;
  const set = (next: number) => setShare(Math.min(100, Math.max(0, next)));
  const follow = (clientX: number) => {
    const box = frame.current?.getBoundingClientRect();
    if (box?.width) set((100 * (clientX - box.left)) / box.width);
  };
  const steps: Record<string, number> = {
    ArrowLeft: share - 1,
    ArrowDown: share - 1,
    ArrowRight: share + 1,
    ArrowUp: share + 1,
    PageDown: share - 10,
    PageUp: share + 10,
    Home: 0,
    End: 100,
  };
  return (
    <Sheet size={size} name={`${names[0]} | ${names[1]}`}>
      <div
        ref={frame}
        className="absolute inset-0 cursor-ew-resize touch-none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          follow(event.clientX);
        }}
        onPointerMove={(event) => event.buttons === 1 && follow(event.clientX)}
      >
        {one}
        <div className="absolute inset-0 bg-card" style={{ clipPath: `inset(0 0 0 ${at})` }}>
          {other}
        </div>
        {outlines}
        <div
          role="slider"
          tabIndex={0}
          aria-label="Handle between the two"
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(share)}
          aria-valuetext={`${Math.round(share)} % ${names[0]}`}
          onKeyDown={(event) => {
            const next = steps[event.key];
            if (next === undefined) return;
            event.preventDefault();
            set(next);
          }}
          className="absolute top-0 bottom-0 w-6 -translate-x-1/2"
          style={{ left: at }}
        >
          <span className="outline-white absolute top-0 bottom-0 left-1/2 w-0.5 -translate-x-1/2 bg-ink outline-1" />
          <span className="absolute top-1/2 left-1/2 size-6 -translate-1/2 rounded-full border-2 border-ink bg-saffron" />
        </div>
      </div>
    </Sheet>
  );
}

/** Slow enough for everybody (WCAG 2.3.1), fast enough that a change leaps to the eye, ms. */
const TURN = 600;

/** One picture, then the other, in the same place; begun and stopped by a button. */
function InTurn({ size, names, one, other, outlines }: TwoProps) {
  const [second, setSecond] = useState(false);
  const [runs, setRuns] = useState(
    () => !window.matchMedia('(prefers-reduced-motion: reduce)').matches,
  );
  useEffect(() => {
    if (!runs) return;
    const timer = setInterval(() => setSecond((now) => !now), TURN);
    return () => clearInterval(timer);
  }, [runs]);
  return (
    <div className="flex flex-col gap-2">
      <Sheet size={size} name={second ? names[1] : names[0]}>
        {one}
        <div
          style={{ visibility: second ? 'visible' : 'hidden' }}
          className="absolute inset-0 bg-card"
        >
          {other}
        </div>
        {outlines}
      </Sheet>
      <div className="flex justify-center gap-2">
        <Button
          icon={
            runs ? <Pause size={16} strokeWidth={1.75} /> : <Play size={16} strokeWidth={1.75} />
          }
          onClick={() => setRuns(!runs)}
        >
          {runs ? 'Stop' : 'Go on'}
        </Button>
        <Button onClick={() => setSecond(!second)}>The other one</Button>
      </div>
    </div>
  );
}
