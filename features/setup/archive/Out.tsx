import { FolderDown, PackageOpen } from 'lucide-react';
import { useState } from 'react';
import type { Archive } from '@/core/contracts/archive';
import type { Folder } from '@/core/contracts/folder';
import { archiveUrl } from '../../api/archives';
import { api } from '../../api/client';
import { useAnswer } from '../../api/useAnswer';
import { Button } from '../../ui/Button';
import { formatCount } from '../../ui/format';
import type { Act } from '../../ui/act';
import { Latest } from './Done';

const field = 'h-8 rounded-[6px] border border-edge bg-card px-2';

interface Props {
  folders: readonly Folder[];
  archives: readonly Archive[];
  act: Act;
}

/** Everything, or what a search finds, as a file or into a folder. */
export function Out({ folders, archives, act }: Props) {
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const wanted = query.trim();
  const { answer: found, problem } = useAnswer(
    (signal) => (wanted ? api.countShots(wanted, false, signal) : Promise.resolve(null)),
    wanted,
    { after: 250 },
  );
  const usable = folders.filter((folder) => !folder.problem);
  const folder =
    usable.find(({ id }) => id === chosen) ?? usable.find((one) => one.isDefault) ?? usable[0];
  const nothing = wanted !== '' && found?.count === 0;
  return (
    <section aria-label="Out" className="rounded-[9px] border border-line bg-card px-4 py-3">
      <h2 className="mb-1 font-name text-lg">Everything out</h2>
      <p className="mb-3 text-soft">
        One file: shots with their untouched pictures and steps of undo, guides, tags, searches,
        looks, folders, routines and settings. It holds what is hidden or cut off, too: it is for
        you, not for others. Passwords, links and the list of programs are not in it.
      </p>
      <label className="mb-3 block text-[13px] text-soft">
        Only shots that this finds (empty for everything)
        <input
          value={query}
          onChange={(event) => setQuery(event.target.value)}
          maxLength={10_000}
          spellCheck={false}
          className={`${field} mt-1 block w-full text-base text-ink`}
        />
      </label>
      <div className="flex flex-wrap items-center gap-2">
        <a
          href={archiveUrl(query)}
          download
          aria-disabled={nothing}
          onClick={(event) => nothing && event.preventDefault()}
          className="inline-flex min-h-8 items-center gap-2 rounded-[7px] border border-ink bg-saffron px-3 py-1 font-bold text-on-saffron hover:brightness-105 aria-disabled:opacity-60"
        >
          <PackageOpen size={18} strokeWidth={1.75} aria-hidden />
          Save as a file
        </a>
        {folder && (
          <>
            <Button
              icon={<FolderDown size={18} strokeWidth={1.75} />}
              disabled={nothing}
              onClick={() => void act(api.archiveInto({ folderId: folder.id, query: wanted }))}
            >
              Write into
            </Button>
            <FolderChoice label="Folder" folders={usable} value={folder.id} onChange={setChosen} />
          </>
        )}
        <span role="status" className="text-[13px] text-soft">
          {wanted !== '' &&
            found &&
            `${formatCount(found.count)}${found.more ? ' or more' : ''} found`}
          {wanted !== '' && problem}
        </span>
      </div>
      <Latest archives={archives} direction="out" act={act} />
    </section>
  );
}

interface ChoiceProps {
  label: string;
  folders: readonly Folder[];
  value: string;
  onChange: (id: string) => void;
}

export function FolderChoice({ label, folders, value, onChange }: ChoiceProps) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      className={`${field} max-w-56`}
    >
      {folders.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
