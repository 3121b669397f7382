import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { flushSync } from 'react-dom';
import type { Mark } from '@/core/marks/registry';
import { select } from '../session/select';
import { useDocument } from '../session/document';
import { useTool } from '../session/tool';
import { session } from '../session/session';
import { MarkRow } from './MarkRow';
import { MarksCommands } from './MarksCommands';
import { SelectedMarks } from './SelectedMarks';

/** All marks from the lowest to the topmost, with everything the picture offers, by keyboard. */
export function MarksList() {
  // The picture comes first; rows follow as soon as there is time.
  const marks = useDeferredValue(useDocument((s) => s.history.document.marks));
  const chosen = useTool((s) => s.selection[0]);
  /** The row that the Tab key comes to. */
  const stop = marks.find((mark) => mark.id === chosen)?.id ?? marks[0]?.id;
  const { list, rows, height, measure } = useRows(marks, stop);
  useFocusKept(list, marks);
  useChosenInSight(list, marks, chosen);
  const step = useCallback(
    (event: KeyboardEvent, id: string) => {
      if (event.target !== event.currentTarget) return;
      if (event.altKey || event.ctrlKey || event.metaKey) return;
      const all = session().history.document.marks;
      const at = all.findIndex((mark) => mark.id === id);
      const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
      if (to === undefined) return;
      const next = all[to];
      event.preventDefault();
      event.stopPropagation();
      if (!next) return;
      // The row of the chosen one is always there, however far off.
      flushSync(() => select([next.id]));
      rowOf(list.current, next.id)?.focus();
    },
    [list],
  );
  return (
    <section aria-label="Marks">
      <h2 className="mb-2 flex items-center justify-between font-name text-base">
        Marks <span className="font-measure text-[13px] font-normal text-soft">{marks.length}</span>
      </h2>
      {marks.length === 0 ? (
        <p className="mb-2 text-soft">None yet. Choose a tool and draw on the picture.</p>
      ) : (
        <ul
          ref={list}
          className="relative mb-2 rounded-[8px] border border-line bg-card [contain:layout_paint_style]"
          style={{ height }}
        >
          {rows.map(({ index, start }) => {
            const stored = marks[index];
            return (
              stored && (
                <MarkRow
                  key={stored.id}
                  stored={stored}
                  index={index}
                  count={marks.length}
                  top={start}
                  measure={measure}
                  isStop={stored.id === stop}
                  onStep={step}
                />
              )
            );
          })}
        </ul>
      )}
      <SelectedMarks />
      <MarksCommands focusRow={(id) => focusSoon(() => rowOf(list.current, id))} />
    </section>
  );
}

/** A row without its settings, px. */
const ROW = 33;
/** The border of the list at top and bottom, px. */
const BORDER = 2;

/**
 * The rows that are in sight in the column, and that of `stop`: with thousands of marks the others
 * are not made at all.
 */
function useRows(marks: readonly Mark[], stop: string | undefined) {
  const list = useRef<HTMLUListElement>(null);
  const [above, setAbove] = useState(0);
  const isEmpty = marks.length === 0;
  const at = marks.findIndex((mark) => mark.id === stop);
  const virtual = useVirtualizer({
    count: marks.length,
    getScrollElement: () => list.current?.closest<HTMLElement>('[data-column]') ?? null,
    estimateSize: () => ROW,
    getItemKey: (index) => marks[index]?.id ?? index,
    overscan: 12,
    scrollMargin: above,
    rangeExtractor: (range) => {
      const seen = defaultRangeExtractor(range);
      return at < 0 || seen.includes(at) ? seen : [...seen, at].sort((a, b) => a - b);
    },
  });
  // What stands above the list in the column grows and shrinks without it.
  useLayoutEffect(() => {
    const element = list.current;
    const column = element?.closest<HTMLElement>('[data-column]');
    if (!element || !column) return;
    const note = () =>
      setAbove(
        Math.round(
          element.getBoundingClientRect().top -
            column.getBoundingClientRect().top +
            column.scrollTop,
        ),
      );
    note();
    const watch = new ResizeObserver(note);
    for (const part of column.children) watch.observe(part);
    return () => watch.disconnect();
  }, [isEmpty]);
  return {
    list,
    rows: virtual.getVirtualItems().map(({ index, start }) => ({ index, start: start - above })),
    height: virtual.getTotalSize() + BORDER,
    measure: virtual.measureElement,
  };
}

/** A mark that was chosen on the picture is seen in the column with all its settings. */
function useChosenInSight(
  list: RefObject<HTMLUListElement | null>,
  marks: readonly Mark[],
  chosen: string | undefined,
): void {
  useEffect(() => {
    if (chosen) rowOf(list.current, chosen)?.closest('li')?.scrollIntoView({ block: 'nearest' });
  }, [list, marks.length, chosen]);
}

const rowOf = (list: HTMLElement | null, id: string): HTMLElement | null =>
  list?.querySelector<HTMLElement>(`[data-mark="${id}"]`) ?? null;

/** Rows follow the picture by a few frames: what was made has the focus as soon as it is there. */
function focusSoon(row: () => HTMLElement | null, frames = 30): void {
  requestAnimationFrame(() => {
    const there = row();
    if (there) there.focus();
    else if (frames > 0) focusSoon(row, frames - 1);
  });
}

/**
 * Whoever stands on a row that goes away is taken to the one that follows, and from the last one
 * to the picture.
 */
function useFocusKept(list: RefObject<HTMLUListElement | null>, marks: readonly Mark[]): void {
  const place = useRef(-1);
  useEffect(() => {
    const note = () => {
      const row = document.activeElement?.closest('li');
      place.current = row && list.current?.contains(row) ? Number(row.dataset.index) : -1;
    };
    document.addEventListener('focusin', note);
    return () => document.removeEventListener('focusin', note);
  }, [list]);
  useEffect(() => {
    if (place.current < 0 || document.activeElement !== document.body) return;
    const next = marks[Math.min(place.current, marks.length - 1)];
    const row = next && rowOf(list.current, next.id);
    if (row) row.focus();
    else document.querySelector<HTMLElement>('[data-home]')?.focus();
    place.current = -1;
  }, [list, marks]);
}
