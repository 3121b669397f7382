import type { Size } from '@/core/geometry/size';
import { useId } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { nameFactsOf } from '@/core/keep/nameFacts';
import { nameFrom, patternProblem } from '@/core/naming/pattern';
import { leaveByKey } from '../keys/focus';
import { PatternHelp } from './PatternHelp';

interface Props {
  shot: Shot;
  folder: Folder | undefined;
  extension: string;
  size: Size;
  pattern: string;
  /** Keep opened to ask for it: it has the focus, selected. */
  asked: boolean;
  onChange: (pattern: string) => void;
  onEnter: () => void;
}

/** The name pattern, with the name it gives. */
export function NameField({
  shot,
  folder,
  extension,
  size,
  pattern,
  asked,
  onChange,
  onEnter,
}: Props) {
  const id = useId();
  const problem = patternProblem(pattern);
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  const name = nameFrom(pattern, nameFactsOf(shot, size, folder?.nextNumber ?? 1, timeZone));
  return (
    <section aria-label="Name">
      <div className="flex items-center gap-3">
        <h2 className="font-name text-base">
          <label htmlFor={id}>Name</label>
        </h2>
        <input
          id={id}
          autoFocus={asked}
          onFocus={(event) => asked && event.target.select()}
          value={pattern}
          aria-invalid={problem !== null}
          aria-describedby={`${id}-gives`}
          onChange={(event) => onChange(event.target.value)}
          onKeyDown={(event) => {
            if (asked && event.key === 'Enter') onEnter();
            else leaveByKey(event);
          }}
          className="h-8 w-full min-w-0 rounded-[7px] border border-edge bg-card px-2.5 font-measure text-[13px] aria-invalid:border-brick"
        />
      </div>
      <p id={`${id}-gives`} aria-live="polite" className="mt-1 text-[13px] break-words text-soft">
        {problem ? (
          <span className="text-brick">{problem}</span>
        ) : (
          <>
            gives <span className="font-measure">{`${name}.${extension}`}</span>, or the next number
          </>
        )}
      </p>
      <PatternHelp />
    </section>
  );
}
