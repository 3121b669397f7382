import { Ellipsis } from 'lucide-react';
import { useCallback, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { Button } from './Button';
import { fitting } from './fitting';
import { Pop } from './Pop';

export interface Folding {
  /** The same item from one drawing to the next. */
  key: string;
  node: ReactNode;
}

interface Props {
  items: readonly Folding[];
  /** Of the button behind which the rest stands. */
  label: string;
}

/** Pixels between two items, as `gap-x-3.5` has it. */
const GAP = 14;
/** What the button takes. */
const MORE = 96;

/** Controls on one line, however many: what does not fit folds away behind one button. */
export function FoldedRow({ items, label }: Props) {
  const row = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(Infinity);
  const [widths, note] = useWidths();
  useLayoutEffect(() => {
    const element = row.current;
    if (!element) return;
    const measure = () => setRoom(element.clientWidth);
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  // What was never measured stands on the line once, before it is seen, to be measured.
  const known = items.map(({ key }) => widths.get(key) ?? 0);
  const shown = fitting(known, room, { gap: GAP, more: MORE });
  const folded = items.slice(shown);
  return (
    <div ref={row} className="flex min-w-[5.5rem] grow basis-0 items-center gap-x-3.5">
      {items.slice(0, shown).map(({ key, node }) => (
        <Measured key={key} id={key} note={note}>
          {node}
        </Measured>
      ))}
      {folded.length > 0 && (
        <Pop
          passesKeys
          label={label}
          className="flex max-w-[min(26rem,calc(100vw-2rem))] flex-wrap items-center gap-x-4 gap-y-2.5"
          trigger={
            <Button
              aria-label={label}
              className="shrink-0"
              icon={<Ellipsis size={16} strokeWidth={1.75} />}
            >
              More
            </Button>
          }
        >
          {folded.map(({ key, node }) => (
            <div key={key} className="flex max-w-full items-center">
              {node}
            </div>
          ))}
        </Pop>
      )}
    </div>
  );
}

interface MeasuredProps {
  id: string;
  note: (id: string, width: number) => void;
  children: ReactNode;
}

function Measured({ id, note, children }: MeasuredProps) {
  const element = useRef<HTMLDivElement>(null);
  // Before it is seen, whenever the line is drawn anew; and when the item changes by itself.
  useLayoutEffect(() => {
    if (element.current) note(id, element.current.offsetWidth);
  });
  useLayoutEffect(() => {
    const { current } = element;
    if (!current) return;
    const measure = () => note(id, current.offsetWidth);
    const watch = new ResizeObserver(measure);
    watch.observe(current);
    return () => watch.disconnect();
  }, [id, note]);
  return (
    <div ref={element} className="flex shrink-0 items-center empty:hidden">
      {children}
    </div>
  );
}

type Widths = ReadonlyMap<string, number>;

/** The widths of items as they were when last on the line. */
function useWidths(): [Widths, (id: string, width: number) => void] {
  const [known, setKnown] = useState<Widths>(new Map());
  const note = useCallback((id: string, width: number) => {
    setKnown((before) => (before.get(id) === width ? before : new Map(before).set(id, width)));
  }, []);
  return [known, note];
}
