import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { thumbnailUrl } from '../api/client';
import type { Waiting } from '../outbox/outbox';
import { classes } from '../ui/classes';
import { formatDay, formatTime } from '../ui/format';
import { useSize } from '../ui/useSize';
import { rowsOf, type Row } from './rows';
import type { ShotList } from './useShots';

interface Props {
  list: ShotList;
  chosen: string | null;
  /** Those that something is done with at once. */
  several: readonly string[];
  onSeveral: (ids: readonly string[]) => void;
  onChoose: (id: string) => void;
  onOpen: (shot: ShotSummary) => void;
}

const CARD_WIDTH = 236;
const heights = { day: 44, shots: 206, waiting: 60 };

/** Days of shots; only the rows in sight are in the page. */
export function Days({ list, chosen, several, onSeveral, onChoose, onOpen }: Props) {
  const choose = useSeveral(list, several, onSeveral);
  const [space, size] = useSize<HTMLDivElement>();
  const columns = Math.max(1, Math.floor((size.width - 40) / CARD_WIDTH));
  const rows = useMemo(
    () => rowsOf(list.shots, list.waiting, columns, (iso) => formatDay(iso)),
    [list.shots, list.waiting, columns],
  );
  // The library keeps its measurements in an object that changes under React's eyes.

  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => space.current,
    estimateSize: (i) => heights[rows[i]?.kind ?? 'shots'],
    getItemKey: (i) => rows[i]?.key ?? i,
    overscan: 4,
  });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (list.more && last >= rows.length - 6) list.loadMore();
  }, [last, rows.length, list]);
  const key = (event: KeyboardEvent, shot: ShotSummary) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns, ArrowUp: -columns }[event.key];
    if (!by) return;
    event.preventDefault();
    const to = list.shots[list.shots.indexOf(shot) + by];
    if (!to) return;
    onChoose(to.id);
    const at = rows.findIndex((row) => row.kind === 'shots' && row.shots.includes(to));
    virtual.scrollToIndex(at);
    requestAnimationFrame(() =>
      space.current?.querySelector<HTMLElement>(`[data-shot="${to.id}"]`)?.focus(),
    );
  };
  return (
    <div ref={space} className="min-h-0 grow overflow-auto px-5">
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {items.map((item) => {
          const row = rows[item.index];
          if (!row) return null;
          return (
            <div
              key={item.key}
              className="absolute inset-x-0 top-0"
              style={{ height: item.size, transform: `translateY(${item.start}px)` }}
            >
              <RowView
                row={row}
                columns={columns}
                chosen={chosen}
                several={several}
                onSeveral={onSeveral}
                onTick={choose}
                onChoose={onChoose}
                onOpen={onOpen}
                onKey={key}
              />
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface RowProps extends Omit<Props, 'list'> {
  row: Row;
  columns: number;
  /** Puts a shot among the several or takes it out; with Shift all from the last one to it. */
  onTick: (id: string, range: boolean) => void;
  onKey: (event: KeyboardEvent, shot: ShotSummary) => void;
}

function RowView({ row, columns, ...rest }: RowProps) {
  if (row.kind === 'day') {
    return (
      <h2 className="flex items-baseline gap-3 pt-3 font-name text-lg">
        {row.label}
        <span className="font-read text-[13px] font-normal text-soft">
          {row.count === 1 ? '1 shot' : `${row.count} shots`}
        </span>
      </h2>
    );
  }
  if (row.kind === 'waiting') return <WaitingRow entry={row.entry} />;
  return (
    <div
      className="grid gap-4"
      style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
    >
      {row.shots.map((shot) => (
        <Card key={shot.id} shot={shot} {...rest} />
      ))}
    </div>
  );
}

function Card({
  shot,
  chosen,
  several,
  onTick,
  onChoose,
  onOpen,
  onKey,
}: Omit<RowProps, 'row' | 'columns'> & { shot: ShotSummary }) {
  const selected = shot.id === chosen;
  const ticked = several.includes(shot.id);
  return (
    <div className="group relative">
      <button
        type="button"
        data-shot={shot.id}
        aria-pressed={selected}
        onClick={(event) => {
          if (event.ctrlKey || event.metaKey || event.shiftKey) onTick(shot.id, event.shiftKey);
          else onChoose(shot.id);
        }}
        onDoubleClick={() => onOpen(shot)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            onOpen(shot);
          } else if (event.key === ' ') {
            event.preventDefault();
            onTick(shot.id, event.shiftKey);
          } else onKey(event, shot);
        }}
        className="block w-full rounded-[8px] p-1 text-left"
      >
        <span
          className={classes(
            'block h-[138px] overflow-hidden rounded-[7px] border bg-card',
            selected || ticked ? 'border-petrol ring-2 ring-petrol' : 'border-line',
          )}
        >
          <img
            src={thumbnailUrl(shot)}
            alt=""
            loading="lazy"
            className="size-full object-contain"
          />
        </span>
        <span className="mt-1 block truncate font-bold">{shot.title}</span>
        <span className="block truncate text-[13px] text-soft">
          {formatTime(shot.takenAt)} ·{' '}
          <span className="font-measure">
            {shot.width} × {shot.height}
          </span>
          {shot.copies > 0 && <span className="text-petrol"> kept {shot.copies}×</span>}
        </span>
      </button>
      <label
        className={classes(
          'absolute top-2 left-2 grid size-7 place-items-center rounded-[6px] border border-edge bg-card',
          several.length === 0 &&
            'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100',
        )}
      >
        <span className="sr-only">Choose {shot.title} among several</span>
        <input
          type="checkbox"
          checked={ticked}
          onChange={(event) =>
            onTick(shot.id, event.nativeEvent instanceof MouseEvent && event.nativeEvent.shiftKey)
          }
          className="size-4 accent-petrol"
        />
      </label>
    </div>
  );
}

/** Adds and takes away; a range goes from the one touched last. */
function useSeveral(
  list: ShotList,
  several: readonly string[],
  onSeveral: (ids: readonly string[]) => void,
) {
  const last = useRef<string | null>(null);
  return (id: string, range: boolean) => {
    const ids = list.shots.map((shot) => shot.id);
    const [from, to] = [ids.indexOf(last.current ?? ''), ids.indexOf(id)];
    last.current = id;
    if (range && from >= 0) {
      const between = ids.slice(Math.min(from, to), Math.max(from, to) + 1);
      onSeveral([...new Set([...several, ...between])]);
    } else if (several.includes(id)) onSeveral(several.filter((one) => one !== id));
    else onSeveral([...several, id]);
  };
}

function WaitingRow({ entry }: { entry: Waiting }) {
  return (
    <p className="rounded-[8px] border border-dashed border-edge bg-card px-3 py-2">
      <span className="font-bold">{entry.title}</span>{' '}
      <span className="text-brick">
        {entry.refused ?? 'not stored yet; it is safe in this browser and sent again'}
      </span>
    </p>
  );
}
