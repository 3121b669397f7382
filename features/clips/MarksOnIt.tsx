import { clockOf } from '@/core/clip/clock';
import { secondsOf } from '@/core/clip/cuts';
import type { Clip } from '@/core/contracts/clip';
import { kindOf } from '@/core/marks/registry';
import { navigate } from '../thread/navigate';

/** What lies on the pictures of a clip, and when; each leads to where it is marked. */
export function MarksOnIt({ clip: { id, document, times } }: { clip: Clip }) {
  const { marks } = document;
  const all = { from: 0, to: times.length };
  return (
    <section aria-label="Marks">
      <h2 className="flex items-center justify-between font-name text-base">
        Marks <span className="font-measure text-[13px] font-normal text-soft">{marks.length}</span>
      </h2>
      {marks.length === 0 ? (
        <p className="text-[13px] text-soft">
          None yet. Stop at a picture and choose Mark: what you draw, hide or crop there stays as
          long as you say.
        </p>
      ) : (
        <ul className="rounded-[8px] border border-line bg-card">
          {marks.map((mark) => {
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
        </ul>
      )}
    </section>
  );
}
