import { clockOf } from '@/core/clip/clock';
import { secondsOf } from '@/core/clip/cuts';
import type { Clip } from '@/core/contracts/clip';
import { kindOf, type Mark } from '@/core/marks/registry';
import { navigate } from '../thread/navigate';

/** So many are listed; where every click is a mark there may be thousands. */
const LISTED = 200;

const begins = ({ time }: Mark): number => time?.from ?? 0;

/** What lies on the pictures of a clip, and when; each leads to where it is marked. */
export function MarksOnIt({ clip: { id, document, times } }: { clip: Clip }) {
  const marks = [...document.marks].sort((a, b) => begins(a) - begins(b));
  const all = { from: 0, to: times.length };
  return (
    <section aria-label="Marks">
      <h2 className="flex items-center justify-between font-name text-base">
        Marks <span className="font-measure text-[13px] font-normal text-soft">{marks.length}</span>
      </h2>
      {document.view.follow && (
        <p className="mb-1 text-[13px] text-soft">
          The view follows the window, and what you mark goes with it. Crop in Mark lets it stay.
        </p>
      )}
      {marks.length === 0 ? (
        <p className="text-[13px] text-soft">
          None yet. Stop at a picture and choose Mark: what you draw, hide or crop there stays as
          long as you say.
        </p>
      ) : (
        <ul className="max-h-72 overflow-y-auto rounded-[8px] border border-line bg-card">
          {marks.slice(0, LISTED).map((mark) => {
            const { from, to } = secondsOf(mark.time ?? all, times);
            return (
              <li key={mark.id} className="border-b border-line last:border-b-0">
                <button
                  type="button"
                  onClick={() => navigate(`/clips/${id}/mark`, 'push', `?at=${from}`)}
                  className="flex min-h-8 w-full items-center justify-between gap-2 px-2 text-left -outline-offset-2"
                >
                  <span className="truncate font-bold">{mark.name ?? kindOf(mark).label}</span>
                  <span className="shrink-0 font-measure text-[13px] text-soft">
                    {mark.time ? `${clockOf(from)}–${clockOf(to)}` : 'all the time'}
                  </span>
                </button>
              </li>
            );
          })}
          {marks.length > LISTED && (
            <li className="px-2 py-1 text-[13px] text-soft">
              and {marks.length - LISTED} later ones
            </li>
          )}
        </ul>
      )}
    </section>
  );
}
