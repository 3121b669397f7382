import type { Archive } from '@/core/contracts/archive';
import { api } from '../../api/client';
import { Button } from '../../ui/Button';
import { formatMoment, formatTime } from '../../ui/format';
import type { Act } from '../../ui/act';
import { outcomeOf, whatOf } from './said';

export const isGoing = ({ state, endedAt }: Archive): boolean =>
  state === 'waiting' || state === 'going on' || (state === 'handed out' && endedAt === null);

interface LatestProps {
  archives: readonly Archive[];
  direction: Archive['direction'];
  act: Act;
}

/** What goes on with the latest of a direction, or became of it: seen where it was begun. */
export function Latest({ archives, direction, act }: LatestProps) {
  const latest = archives.find((archive) => archive.direction === direction);
  return (
    <div className="mt-2 flex min-h-8 items-center gap-3">
      <p role="status" className={latest?.problem ? 'text-brick' : 'text-soft'}>
        {latest && `${formatTime(latest.beganAt)} · ${outcomeOf(latest)}`}
      </p>
      {latest && isGoing(latest) && latest.state !== 'handed out' && (
        <Button onClick={() => void act(api.stopArchive(latest.id))}>Stop</Button>
      )}
    </div>
  );
}

/** What goes on, and what became of what was done. */
export function Done({ archives, act }: { archives: readonly Archive[]; act: Act }) {
  if (archives.length === 0) return null;
  return (
    <section aria-label="Archives">
      <h2 className="mb-2 font-name text-lg">Done so far</h2>
      <ul className="flex flex-col gap-2">
        {archives.map((archive) => (
          <li key={archive.id} className="rounded-[9px] border border-line bg-card px-4 py-2">
            <div className="flex items-start gap-3">
              <div className="min-w-0 grow">
                <p>
                  <span className="font-bold">{whatOf(archive)}</span>{' '}
                  <span className="text-[13px] text-soft">
                    {formatMoment(archive.beganAt)}
                    {archive.planned && ', by itself'}
                  </span>
                </p>
                <p className="font-measure text-[13px] break-all text-soft">{archive.path}</p>
                <p className={archive.problem ? 'text-brick' : ''}>{outcomeOf(archive)}</p>
                <Details archive={archive} />
              </div>
              {isGoing(archive) && archive.state !== 'handed out' && (
                <Button onClick={() => void act(api.stopArchive(archive.id))}>Stop</Button>
              )}
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was found on the way, one click further. */
function Details({ archive: { report } }: { archive: Archive }) {
  const count = (report?.told.length ?? 0) + (report?.damaged.length ?? 0) + (report?.more ?? 0);
  if (!report || count === 0) return null;
  return (
    <details className="mt-1">
      <summary className="text-petrol">
        {report.damaged.length > 0 ? 'Not all of it was sound' : 'What was found on the way'}
      </summary>
      <ul className="mt-1 ml-4 list-disc text-[13px]">
        {report.told.map((words, i) => (
          <li key={i}>{words}</li>
        ))}
        {report.damaged.map(({ entry, why }, i) => (
          <li key={i} className="text-brick">
            <span className="font-measure break-all">{entry}</span>: {why}
          </li>
        ))}
        {report.more > 0 && <li>… and {report.more} more.</li>}
      </ul>
    </details>
  );
}
