import { useMemo, useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { limits } from '@/core/values/limits';
import { patternProblem, titleFrom } from '@/core/naming/pattern';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';

interface Props {
  open: boolean;
  shots: readonly ShotSummary[];
  onNames: (names: ReadonlyMap<string, string>) => void;
  onClose: () => void;
}

const SHOWN = 4;

/** Gives several shots names by a pattern; the first few are shown before. */
export function ManyNames({ open, onClose, ...rest }: Props) {
  return (
    <Modal
      open={open}
      title="Rename by a pattern"
      description="Fields: {title}, {date}, {time}, {n} with digits as in {n:2}, {size}, {width}, {height}."
      onClose={onClose}
    >
      <Form {...rest} onClose={onClose} />
    </Modal>
  );
}

function Form({ shots, onNames, onClose }: Omit<Props, 'open'>) {
  const [pattern, setPattern] = useState('{title} {n:2}');
  const problem = patternProblem(pattern);
  // The oldest has the first number.
  const names = useMemo(() => {
    const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const ordered = [...shots].sort((a, b) => a.takenAt.localeCompare(b.takenAt));
    return new Map(
      ordered.map((shot, i) => {
        const { title, takenAt, width, height } = shot;
        const facts = { title, window: '', takenAt, timeZone, width, height, number: i + 1 };
        return [shot.id, problem ? '' : titleFrom(pattern, facts, limits.titleLength)];
      }),
    );
  }, [shots, pattern, problem]);
  const shown = [...names.values()];
  const empty = !problem && shown.some((name) => name === '');
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (problem || empty) return;
        onNames(names);
        onClose();
      }}
    >
      <input
        aria-label="Pattern"
        value={pattern}
        maxLength={limits.patternLength}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setPattern(event.target.value)}
        className="h-9 rounded-[6px] border border-edge bg-card px-2 font-measure"
      />
      {problem ? (
        <Problem>{problem}</Problem>
      ) : (
        <ul aria-label="How they will be called" className="text-soft">
          {shown.slice(0, SHOWN).map((name, i) => (
            <li key={i} className="truncate">
              {name || '(no name)'}
            </li>
          ))}
          {shown.length > SHOWN && <li>… and {shown.length - SHOWN} more</li>}
        </ul>
      )}
      <div className="flex justify-end">
        <Button look="next" type="submit" disabled={problem !== null || empty}>
          {shots.length === 1 ? 'Rename 1 shot' : `Rename ${shots.length} shots`}
        </Button>
      </div>
    </form>
  );
}
