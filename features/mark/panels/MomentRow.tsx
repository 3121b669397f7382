import { StepBack, StepForward } from 'lucide-react';
import { useState } from 'react';
import { clockOf } from '@/core/clip/clock';
import { filmEnds, secondsOf, UNCUT } from '@/core/clip/cuts';
import { kindOf } from '@/core/marks/registry';
import type { Stretch } from '@/core/values/stretch';
import { messageOf } from '../../api/ask';
import { TimeLine } from '../../films/TimeLine';
import { useKey } from '../../keys/useKey';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Problem } from '../../ui/Problem';
import { setTime } from '../actions/time';
import { useDocument } from '../session/document';
import type { Moment } from '../session/moment';
import { openMoment } from '../session/openMoment';
import { isSelectionSeen } from '../session/select';
import { session } from '../session/session';
import { useTool } from '../session/tool';

const icon = { size: 16, strokeWidth: 1.75 };

/** Of a clip: which of its pictures is marked, and when the chosen marks are seen. */
export function MomentRow() {
  const moment = useDocument((s) => s.moment);
  return moment && <OpenMoment moment={moment} />;
}

function OpenMoment({ moment }: { moment: Moment }) {
  const { picture, times, changes } = moment;
  const id = useDocument((s) => s.id);
  /** The picture that is on its way; null where the one in hand is what was asked for. */
  const [wanted, setWanted] = useState<number | null>(null);
  const asked = wanted ?? picture;
  const [problem, setProblem] = useState<string | null>(null);
  const marksRevision = useDocument((s) => s.history.position);
  const chosen = useChosenTime(times.length);
  const show = (to: number) => {
    const next = Math.max(0, Math.min(times.length - 1, to));
    setWanted(next);
    setProblem(null);
    openMoment(next)
      .catch((error: unknown) => setProblem(messageOf(error)))
      .finally(() => setWanted(null));
  };
  useKey(['arrowleft', 'arrowright'], ({ key }) => {
    if (isSelectionSeen() || session().tool === 'finish') return false;
    show(asked + (key === 'ArrowLeft' ? -1 : 1));
    return true;
  });
  return (
    <section aria-label="When" className="border-t border-line bg-paper pt-2">
      <div className="flex flex-wrap items-center gap-2 px-4 pb-2">
        <IconButton label="Picture before" disabled={asked === 0} onClick={() => show(asked - 1)}>
          <StepBack {...icon} />
        </IconButton>
        <IconButton
          label="Next picture"
          disabled={asked === times.length - 1}
          onClick={() => show(asked + 1)}
        >
          <StepForward {...icon} />
        </IconButton>
        <p className="font-measure">
          {clockOf(times[asked] ?? 0)} of {clockOf(filmEnds(times))}
        </p>
        {chosen && (
          <>
            <p role="status" className="ml-2 text-[13px] text-soft">
              {`${chosen.label} is seen ${saidOf(chosen.time, times)}`}
            </p>
            <Button onClick={() => setTime({ from: picture })}>From here</Button>
            <Button onClick={() => setTime({ to: picture + 1 })}>Until here</Button>
            <Button disabled={!chosen.time} onClick={() => setTime(null)}>
              All the time
            </Button>
          </>
        )}
      </div>
      {problem && <Problem>{problem}</Problem>}
      <TimeLine
        {...{ id, times, changes, marksRevision, picture: asked }}
        cuts={UNCUT}
        chosen={chosen?.time ?? null}
        onShow={show}
        onChoose={(stretch) => stretch && chosen && setTime(stretch)}
      />
    </section>
  );
}

function saidOf(time: Stretch | null, times: readonly number[]): string {
  if (!time) return 'all the time';
  const { from, to } = secondsOf(time, times);
  return `from ${clockOf(from)} to ${clockOf(to)}`;
}

/** When the first of the chosen marks is seen. */
function useChosenTime(count: number): { label: string; time: Stretch | null } | null {
  const selection = useTool((s) => s.selection);
  const marks = useDocument((s) => s.history.document.marks);
  const mark = marks.find(({ id }) => id === selection[0]);
  if (!mark) return null;
  const label = mark.name ?? kindOf(mark).label;
  const time = mark.time && { from: mark.time.from, to: Math.min(count, mark.time.to) };
  return { label, time: time ?? null };
}
