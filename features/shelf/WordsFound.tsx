import { RefreshCw } from 'lucide-react';
import { useState } from 'react';
import type { ShotWords } from '@/core/contracts/search';
import type { ShotSummary } from '@/core/contracts/shot';
import { centre, contains, type Rect } from '@/core/geometry/rect';
import { clockOf } from '@/core/clip/clock';
import { api } from '../api/client';
import { copyText } from '../pictures/clipboard';
import { followLink } from '../thread/navigate';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { useAnswer } from '../api/useAnswer';
import { Problem } from '../ui/Problem';

const SHOWN = 60;
/** While words are being read, ms. */
const LOOK_AGAIN = 3_000;

const states: Record<Exclude<ShotWords['state'], 'read'>, string> = {
  waiting: 'Not read yet; that is done in the background.',
  reading: 'Being read now …',
  stopped: 'Could not be read.',
  off: 'Not read: that is switched off in Setup › Words.',
};

/** All of them, of a clip those of its later pictures too. */
const textOf = ({ words, later = [] }: ShotWords): string =>
  [words.map(({ text }) => text).join(' '), ...later.map(({ lines }) => lines)].join('\n');

const isHit = (hits: readonly Rect[], box: Rect): boolean =>
  hits.some((hit) => contains(hit, centre(box)));

/** The words recognised in a shot, those that were asked for marked. */
export function WordsFound({ shot }: { shot: ShotSummary }) {
  const [all, setAll] = useState(false);
  const {
    answer: read,
    problem,
    again,
  } = useAnswer(() => api.words(shot.id), `${shot.id} ${shot.revision}`, {
    next: (answer) =>
      answer?.state === 'waiting' || answer?.state === 'reading' ? LOOK_AGAIN : null,
  });
  if (!read) return problem && <Problem>{problem}</Problem>;
  const hits = shot.found?.hits ?? [];
  const words = read.words;
  const first = Math.max(0, words.findIndex(({ box }) => isHit(hits, box)) - 6);
  const shown = all ? words : words.slice(first, first + SHOWN);
  return (
    <section aria-label="Words found">
      <h2 className="mb-1 font-name text-base">Words found</h2>
      {read.state !== 'read' && (
        <p className="text-soft">
          {states[read.state]}
          {read.problem && ` ${read.problem}`}
        </p>
      )}
      {read.state === 'stopped' && (
        <Button
          look="quiet"
          icon={<RefreshCw size={16} strokeWidth={1.75} />}
          onClick={() => void api.readAgain(shot.id).then(again)}
        >
          Read again
        </Button>
      )}
      {read.state === 'read' && words.length === 0 && <p className="text-soft">None.</p>}
      {shown.length > 0 && (
        <p className="text-[13px] break-words">
          {first > 0 && !all && '… '}
          {shown.map(({ text, box }, i) => (
            <span key={`${box.x} ${box.y} ${i}`}>
              <span className={classes(isHit(hits, box) && 'bg-tint outline-2 outline-petrol')}>
                {text}
              </span>{' '}
            </span>
          ))}
        </p>
      )}
      {read.later && <LaterWords shot={shot} later={read.later} />}
      {words.length > 0 && (
        <div className="flex flex-wrap gap-1">
          {words.length > shown.length && (
            <Button look="quiet" onClick={() => setAll(true)}>
              {words.length - shown.length} more
            </Button>
          )}
          <Button
            look="quiet"
            onClick={() => void copyText(textOf(read)).then(() => announce('Words copied'))}
          >
            Copy the words
          </Button>
        </div>
      )}
    </section>
  );
}

/** Of a clip: what is first seen on its later pictures, each with the way there. */
function LaterWords({
  shot,
  later,
}: {
  shot: ShotSummary;
  later: NonNullable<ShotWords['later']>;
}) {
  return (
    <ul className="my-1 flex flex-col gap-1 text-[13px]">
      {later.map(({ at, lines }) => (
        <li
          key={at}
          className={classes(
            'line-clamp-3 break-words',
            at === shot.found?.moment && 'bg-tint outline-2 outline-petrol',
          )}
        >
          <a
            href={`/clips/${shot.id}?at=${at}`}
            onClick={followLink}
            className="font-measure text-petrol underline"
          >
            {clockOf(at)}
          </a>{' '}
          {lines}
        </li>
      ))}
    </ul>
  );
}
