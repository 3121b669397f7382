import { everyNames, type Plan } from '@/core/contracts/archive';
import type { Folder } from '@/core/contracts/folder';
import { api } from '../../api/client';
import { NumberInput } from '../../ui/NumberInput';
import type { Act } from '../../ui/act';
import { FolderChoice } from './Out';

const KEEP = 3;

interface Props {
  plan: Plan | null;
  folders: readonly Folder[];
  act: Act;
}

/** When an archive is written without being asked for. */
export function ByItself({ plan, folders, act }: Props) {
  const usable = folders.filter(({ problem, id }) => !problem || id === plan?.folderId);
  const set = (next: Plan | null) => void act(api.planArchives(next));
  const first = usable[0];
  return (
    <section aria-label="By itself" className="rounded-[9px] border border-line bg-card px-4 py-3">
      <h2 className="mb-1 font-name text-lg">By itself</h2>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <label className="flex items-center gap-2">
          Everything out
          <select
            value={plan?.every ?? ''}
            disabled={!first}
            onChange={(event) => {
              const every = everyNames.find((name) => name === event.target.value);
              if (!every) set(null);
              else if (plan) set({ ...plan, every });
              else if (first) set({ folderId: first.id, every, keep: KEEP });
            }}
            className="h-8 rounded-[6px] border border-edge bg-card px-2"
          >
            <option value="">never</option>
            {everyNames.map((name) => (
              <option key={name} value={name}>
                every {name}
              </option>
            ))}
          </select>
        </label>
        {plan && (
          <>
            <label className="flex items-center gap-2">
              into
              <FolderChoice
                label="Folder of the plan"
                folders={usable}
                value={plan.folderId}
                onChange={(folderId) => set({ ...plan, folderId })}
              />
            </label>
            <NumberInput
              label="Leave the latest"
              value={plan.keep ?? 0}
              min={0}
              max={1_000}
              empty
              onCommit={(keep) => set({ ...plan, keep: keep === 0 ? null : Math.round(keep) })}
            />
          </>
        )}
      </div>
      <p className="mt-1 text-[13px] text-soft">
        {first
          ? 'Best into a folder on another disk. Of those that it wrote itself, older ones are deleted; others never.'
          : 'Add a folder first.'}
      </p>
    </section>
  );
}
