import { useEffect, useState } from 'react';
import type { Compared, Comparison } from '@/core/contracts/compare';
import type { Shot } from '@/core/contracts/shot';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { useKey } from '../keys/useKey';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Radio, Radios } from '../ui/Radios';
import { Toggle } from '../ui/Toggle';
import { formatCount, formatFixed } from '../ui/format';
import { chosenLook, classes } from '../ui/classes';
import { Laid, ways, type Way } from './Laid';

interface Props {
  first: string;
  /** The same: the shot untouched, and with what was done to it. */
  second: string;
}

/** Two shots, or one and its untouched frame, laid on each other. */
export function CompareView({ first, second }: Props) {
  const alone = first === second;
  const [of, setOf] = useState<Compared>('marked');
  const [way, setWay] = useState<Way>('slider');
  const [outlined, setOutlined] = useState(true);
  const [chosen, setChosen] = useState<number | null>(null);
  const shots = useAnswer(() => Promise.all([api.shot(first), api.shot(second)]), first + second);
  const found = useAnswer(() => api.compare(first, second, of), `${first} ${second} ${of}`);
  const [one, other] = shots.answer ?? [];
  const comparison = found.answer;
  const title = alone ? (one?.title ?? '') : `${one?.title ?? ''} | ${other?.title ?? ''}`;
  useEffect(() => {
    document.title = `${title} – Compare – Rezzik`;
  }, [title]);
  useKey('escape', () => navigate('/shelf'));
  useKey(
    ways.map((_, i) => String(i + 1)),
    ({ key }) => setWay(ways[Number(key) - 1]?.way ?? 'slider'),
  );
  const problem = shots.problem ?? found.problem;
  return (
    <>
      <Thread
        place="shelf"
        shot={first}
        middle={<Names one={one} other={alone ? null : other} />}
      />
      <section
        aria-label="How they are compared"
        className="flex flex-wrap items-center gap-4 border-b border-line bg-card px-4 py-2"
      >
        <h1 className="sr-only">Compare</h1>
        <Radios label="Laid" value={way} onChange={setWay} className="flex gap-1.5">
          {ways.map(({ way: name, label }, i) => (
            <Radio
              key={name}
              value={name}
              className={classes('h-8 rounded-full border px-3', chosenLook(name === way))}
            >
              {label} <span className="font-measure text-[12px] opacity-80">{i + 1}</span>
            </Radio>
          ))}
        </Radios>
        {!alone && (
          <Toggle
            label="Untouched"
            checked={of === 'untouched'}
            onChange={(on) => setOf(on ? 'untouched' : 'marked')}
          />
        )}
        <Toggle label="Outline what differs" checked={outlined} onChange={setOutlined} />
      </section>
      <div className="flex min-h-0 grow">
        <main
          data-home
          tabIndex={-1}
          aria-label="Compared"
          className="relative min-w-0 grow bg-desk outline-none"
        >
          {problem ? (
            <div className="p-6">
              <Problem action={<Button onClick={found.again}>Try again</Button>}>{problem}</Problem>
            </div>
          ) : comparison && one && other ? (
            <Laid
              way={way}
              comparison={comparison}
              first={pictureOf(one, alone || of === 'untouched')}
              second={pictureOf(other, !alone && of === 'untouched')}
              names={alone ? ['Untouched', 'Marked'] : [one.title, other.title]}
              outlined={outlined}
              chosen={chosen}
            />
          ) : (
            <p role="status" className="p-6 text-soft">
              Comparing …
            </p>
          )}
        </main>
        {comparison && <Differences comparison={comparison} chosen={chosen} onChoose={setChosen} />}
      </div>
    </>
  );
}

const pictureOf = ({ id, revision }: Shot, untouched: boolean): string =>
  `/api/shots/${id}/picture?format=png&words=0&without=${untouched ? 'marks' : 'surround'}&r=${revision}`;

function Names({ one, other }: { one: Shot | undefined; other: Shot | null | undefined }) {
  const name = (shot: Shot) => (
    <a
      href={`/shots/${shot.id}`}
      onClick={followLink}
      className="min-w-0 truncate text-petrol underline"
    >
      {shot.title}
    </a>
  );
  return (
    <p className="flex min-w-0 items-center gap-2">
      {one && name(one)}
      {other === null ? <span>untouched and marked</span> : other && <>| {name(other)}</>}
    </p>
  );
}

const MOST_LISTED = 100;

function Differences({
  comparison: { pixels, places, shift, both },
  chosen,
  onChoose,
}: {
  comparison: Comparison;
  chosen: number | null;
  onChoose: (nth: number | null) => void;
}) {
  const percent = both.width * both.height ? (100 * pixels) / (both.width * both.height) : 0;
  return (
    <aside
      aria-label="What differs"
      className="flex w-[250px] shrink-0 flex-col overflow-auto border-l border-line bg-paper p-3"
    >
      <h2 className="mb-1 font-name text-base">What differs</h2>
      <p role="status" data-testid="counted">
        {pixels === 0
          ? 'Nothing: every pixel is the same.'
          : `${formatCount(pixels)} ${pixels === 1 ? 'pixel' : 'pixels'}, ${percent < 0.1 ? 'less than 0.1' : formatFixed(percent, 1)} %.`}
        {pixels > 0 && places.length === 0 && ' By so little that nobody sees it.'}
      </p>
      {(shift.x !== 0 || shift.y !== 0) && (
        <p className="mt-1 text-soft">{`Laid on each other by what they show: the second ${shiftWords(shift)}.`}</p>
      )}
      <ol className="mt-2 flex flex-col gap-1">
        {places.slice(0, MOST_LISTED).map(({ x, y, width, height }, i) => (
          <li key={i}>
            <button
              type="button"
              aria-pressed={chosen === i}
              onClick={() => onChoose(chosen === i ? null : i)}
              className={classes(
                'w-full rounded-[6px] border px-2 py-1 text-left font-measure text-[13px]',
                chosenLook(chosen === i),
              )}
            >
              {`${i + 1}. ${width} × ${height} at ${x}, ${y}`}
            </button>
          </li>
        ))}
      </ol>
      {places.length > MOST_LISTED && (
        <p className="mt-1 text-soft">{`and ${places.length - MOST_LISTED} smaller ones`}</p>
      )}
    </aside>
  );
}

function shiftWords({ x, y }: { x: number; y: number }): string {
  const words = [
    x !== 0 && `${Math.abs(x)} px to the ${x > 0 ? 'right' : 'left'}`,
    y !== 0 && `${Math.abs(y)} px ${y > 0 ? 'down' : 'up'}`,
  ];
  return words.filter(Boolean).join(' and ');
}
