import type { Programs } from '@/core/contracts/program';
import { Problem } from '../../ui/Problem';

/** The programs of this computer that open copies; only looked at here. */
export function ProgramList({ programs }: { programs: Programs | null }) {
  if (!programs) return null;
  return (
    <section aria-label="Programs">
      <h2 className="mb-2 font-name text-lg">Programs</h2>
      <p className="mb-2 text-soft">
        Programs on this computer that open kept copies. They stand in a file that only you can
        write, never this page:{' '}
        <span className="font-measure text-[13px] break-all">{programs.file}</span>
      </p>
      {programs.problem && <Problem>{programs.problem}</Problem>}
      <ul className="list-disc pl-5">
        {programs.programs.map(({ name, opensFolder }) => (
          <li key={name}>
            {name}{' '}
            <span className="text-soft">{opensFolder ? 'opens the place' : 'opens the file'}</span>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[13px] text-soft">
        For example{' '}
        <span className="font-measure">
          {'[{"name": "Open the place", "command": "/usr/bin/xdg-open", "opensFolder": true}]'}
        </span>
      </p>
    </section>
  );
}
