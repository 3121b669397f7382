import { seriesInputSchema } from '@/core/contracts/series';
import { nextTime, spansBetween, type Times } from '@/core/series/times';
import { timesInWords } from '@/core/series/words';
import { formatCount } from '../ui/format';
import { messageOf } from '../api/ask';
import { timesOfDraft, type Draft } from './draft';
import { momentIn } from './words';

const SHOWN = 5;
const WEEK = 7 * 86_400_000;

/** The times of a draft as they would be. @throws Error in words for the person */
function timesOf(draft: Draft, now: number): Times {
  const { times } = seriesInputSchema.pick({ times: true }).parse({ times: timesOfDraft(draft) });
  const begins = times.begins ?? new Date(Math.ceil(now / 1000) * 1000).toISOString();
  return { ...times, zone: draft.zone, begins };
}

function following(times: Times, now: number): number[] {
  const found: number[] = [];
  let next = nextTime(times, now - 1);
  while (next !== null && found.length < SHOWN) {
    found.push(next);
    next = nextTime(times, next);
  }
  return found;
}

/** What a draft comes to: in words, its first times, and how many it is in a week. */
export function NextTimes({ draft, now }: { draft: Draft; now: number }) {
  let times: Times;
  try {
    times = timesOf(draft, now);
  } catch (error) {
    return <p className="text-brick">{messageOf(error)}</p>;
  }
  const first = following(times, now);
  const [from] = first;
  if (from === undefined)
    return <p className="text-brick">These times are over before they begin.</p>;
  const week = spansBetween(times, from, from + WEEK - 1).reduce(
    (sum, { count }) => sum + count,
    0,
  );
  return (
    <>
      <p className="font-bold">{timesInWords(times)}</p>
      <ol className="my-2 font-measure text-[13px]">
        {first.map((moment) => (
          <li key={moment}>{momentIn(moment, times.zone)}</li>
        ))}
      </ol>
      <p className="text-soft">
        {formatCount(week)} in the first week, by the clock of {times.zone}.
      </p>
    </>
  );
}
