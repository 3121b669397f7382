import { CornerLeftUp, FolderOpen } from 'lucide-react';
import { useState } from 'react';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { useAnswer } from '../api/useAnswer';

interface Props {
  /** Where to begin; the roots are the way out of a place that is not there. */
  start: string;
  roots: readonly string[];
  onChoose: (path: string) => void;
}

/** The folders of the computer Rezzik runs on, inside the allowed roots, to choose one. */
export function BrowsePlaces({ start, roots, onChoose }: Props) {
  const [at, setAt] = useState(start);
  const { answer: places, problem } = useAnswer(() => api.places(at), at, { keep: true });
  const row = 'flex w-full items-center gap-2 rounded-[6px] px-2 py-1 text-left hover:bg-tint';
  return (
    <div className="rounded-[8px] border border-line p-2">
      {problem && <Problem>{problem}</Problem>}
      <ul aria-label="Folders" className="max-h-40 overflow-auto">
        {roots.length > 1 &&
          roots.map((root) => (
            <li key={root}>
              <button type="button" className={row} onClick={() => setAt(root)}>
                <FolderOpen size={16} strokeWidth={1.75} aria-hidden /> {root}
              </button>
            </li>
          ))}
        {places?.above && (
          <li>
            <button type="button" className={row} onClick={() => setAt(places.above ?? at)}>
              <CornerLeftUp size={16} strokeWidth={1.75} aria-hidden /> The folder above
            </button>
          </li>
        )}
        {places?.folders.map(({ name, path }) => (
          <li key={path}>
            <button type="button" className={row} onClick={() => setAt(path)}>
              <FolderOpen size={16} strokeWidth={1.75} aria-hidden /> {name}
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1 flex items-center justify-between gap-2">
        <span className="min-w-0 truncate font-measure text-[13px]">{places?.path ?? at}</span>
        <Button disabled={!places} onClick={() => places && onChoose(places.path)}>
          Use this one
        </Button>
      </div>
    </div>
  );
}
