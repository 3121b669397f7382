import type { SeriesEntry } from '@/core/contracts/series';
import { Thumbnail } from '../pictures/Thumbnail';
import { classes } from '../ui/classes';
import { formatCount } from '../ui/format';
import { Radio, Radios } from '../ui/Radios';
import { timeIn } from './words';

interface Props {
  /** Of one day, in their order. */
  entries: readonly SeriesEntry[];
  zone: string;
  chosen: string | null;
  onChoose: (id: string) => void;
}

const outcomes: Record<SeriesEntry['outcome'], string> = {
  due: 'is taken now',
  taken: 'taken',
  unchanged: 'unchanged',
  missed: 'missed',
  noted: 'noted',
};

/** What became of each time of a day. */
export function DayTimes({ entries, zone, chosen, onChoose }: Props) {
  if (entries.length === 0) return <p className="p-3 text-soft">Nothing on this day.</p>;
  return (
    <Radios
      label="Times of the day"
      value={chosen ?? ''}
      className="flex flex-col gap-1"
      onChange={onChoose}
    >
      {entries.map((entry) => (
        <Radio
          key={entry.id}
          value={entry.id}
          className={classes(
            'flex items-center gap-2 rounded-[6px] border p-1.5 text-left',
            entry.id === chosen ? 'border-petrol bg-tint' : 'border-line bg-card hover:bg-tint',
          )}
        >
          {entry.shot && (
            <span className="block h-12 w-16 shrink-0 bg-desk p-0.5">
              <Thumbnail shot={entry.shot} />
            </span>
          )}
          <span className="block min-w-0 grow">
            <span className="block font-measure text-[13px]">{timesOf(entry, zone)}</span>
            <span
              className={classes(
                'block text-[13px]',
                entry.outcome === 'missed' ? 'font-bold text-brick' : 'text-soft',
              )}
            >
              {entry.count > 1 && `${formatCount(entry.count)} `}
              {outcomes[entry.outcome]}
              {entry.outcome === 'taken' && !entry.shot && ', and not on the Shelf any more'}
            </span>
            {entry.why && <span className="block text-[13px] break-words">{entry.why}</span>}
          </span>
        </Radio>
      ))}
    </Radios>
  );
}

const timesOf = ({ at, until, count }: SeriesEntry, zone: string): string =>
  count > 1 ? `${timeIn(at, zone)} – ${timeIn(until, zone)}` : timeIn(at, zone);
