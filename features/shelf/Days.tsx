import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import type { Waiting } from '../outbox/outbox';
import { useSettings } from '../settings/settingsStore';
import { formatDay } from '../ui/format';
import { useSize } from '../ui/useSize';
import { Card, type CardProps } from './Card';
import { rowsOf, type Row } from './rows';
import { useAsked } from './search/asked';
import type { ShotList } from './useShots';

interface Props extends Pick<CardProps, 'chosen' | 'several' | 'onChoose' | 'onOpen' | 'onLook'> {
  list: ShotList;
  onSeveral: (ids: readonly string[]) => void;
}

const widths = { small: 150, large: 236 };
const heights = { day: 44, waiting: 60, small: 140, large: 206 };
const formatOne = (iso: string): string => formatDay(iso);

/** Days of shots; only the rows in sight are in the page. */
export function Days({ list, several, onSeveral, ...props }: Props) {
  const tick = useSeveral(list, several, onSeveral);
  const { smallCards: small, binDays } = useSettings((s) => s.settings);
  const byDay = useAsked((s) => s.order === 'day' || s.text.trim() === '');
  const [folded, fold] = useFolded();
  const [space, size] = useSize<HTMLDivElement>();
  const card = small ? 'small' : 'large';
  const columns = Math.max(1, Math.floor((size.width - 40) / widths[card]));
  const rows = useMemo(
    () => rowsOf(list.shots, list.waiting, { columns, folded, dayOf: byDay ? formatOne : null }),
    [list.shots, list.waiting, columns, folded, byDay],
  );
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => space.current,
    estimateSize: (i) => {
      const kind = rows[i]?.kind ?? 'shots';
      return heights[kind === 'shots' ? card : kind];
    },
    getItemKey: (i) => rows[i]?.key ?? i,
    overscan: 4,
  });
  // Cards of another size: what was measured holds no more.
  useEffect(() => virtual.measure(), [card, virtual]);
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (list.more && last >= rows.length - 6) list.loadMore();
  }, [last, rows.length, list]);
  const key = (event: KeyboardEvent, shot: ShotSummary) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns, ArrowUp: -columns }[event.key];
    if (!by) return;
    event.preventDefault();
    const shown = rows.flatMap((row) => (row.kind === 'shots' ? row.shots : []));
    const to = shown[shown.indexOf(shot) + by];
    if (!to) return;
    props.onChoose(to.id);
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
                {...props}
                {...{ row, columns, several, small, binDays }}
                onTick={tick}
                onKey={key}
                onFold={fold}
              />
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** Folded days stay so until the page is loaded anew. */
const foldedDays = new Set<string>();

function useFolded(): [ReadonlySet<string>, (day: string) => void] {
  const [folded, setFolded] = useState<ReadonlySet<string>>(() => new Set(foldedDays));
  const fold = (day: string) => {
    if (!foldedDays.delete(day)) foldedDays.add(day);
    setFolded(new Set(foldedDays));
  };
  return [folded, fold];
}

interface RowProps extends CardProps {
  row: Row;
  columns: number;
  onFold: (day: string) => void;
}

function RowView({ row, columns, onFold, ...rest }: RowProps) {
  if (row.kind === 'day') return <DayHeading row={row} onFold={onFold} />;
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

function DayHeading({
  row: { label, count, folded },
  onFold,
}: {
  row: Extract<Row, { kind: 'day' }>;
  onFold: (day: string) => void;
}) {
  const Arrow = folded ? ChevronRight : ChevronDown;
  return (
    <h2 className="pt-3 font-name text-lg">
      <button
        type="button"
        aria-expanded={!folded}
        onClick={() => onFold(label)}
        className="group/day -ml-1.5 flex items-baseline gap-3 rounded-[6px] px-1.5 hover:bg-tint"
      >
        {label}
        <span className="font-read text-[13px] font-normal text-soft">
          {`${folded ? 'folded, ' : ''}${count === 1 ? '1 shot' : `${count} shots`}`}
        </span>
        <Arrow size={15} strokeWidth={2} aria-hidden className="self-center text-soft" />
      </button>
    </h2>
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
