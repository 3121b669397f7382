import { useId } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { nameFactsOf } from '@/core/naming/nameFacts';
import { nameFrom, patternProblem } from '@/core/naming/pattern';
import { PatternHelp } from '../setup/PatternHelp';

interface Props {
  shot: Shot;
  folder: Folder | undefined;
  extension: string;
  size: { width: number; height: number };
  pattern: string;
  onChange: (pattern: string) => void;
}

/** The name pattern, with the name it gives. */
export function NameField({ shot, folder, extension, size, pattern, onChange }: Props) {
  const id = useId();
  const problem = patternProblem(pattern);
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  const name = nameFrom(pattern, nameFactsOf(shot, size, folder?.nextNumber ?? 1, timeZone));
  return (
    <section aria-label="Name">
      <h2 className="mb-2 font-name text-base">
        <label htmlFor={id}>Name</label>
      </h2>
      <input
        id={id}
        value={pattern}
        aria-invalid={problem !== null}
        aria-describedby={`${id}-gives`}
        onChange={(event) => onChange(event.target.value)}
        className="h-9 w-full rounded-[7px] border border-edge bg-card px-2.5 font-measure text-[13px] aria-invalid:border-brick"
      />
      <p id={`${id}-gives`} aria-live="polite" className="mt-1 text-[13px] break-words text-soft">
        {problem ? (
          <span className="text-brick">{problem}</span>
        ) : (
          <>
            gives <span className="font-measure">{`${name}.${extension}`}</span>; a taken name gets
            the next number
          </>
        )}
      </p>
      <PatternHelp />
    </section>
  );
}
