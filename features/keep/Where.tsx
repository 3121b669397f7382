import type { Folder } from '@/core/contracts/folder';
import { Toggle } from '../ui/Toggle';

export interface Places {
  folders: string[];
  clipboard: boolean;
}

interface Props {
  folders: Folder[];
  places: Places;
  onChange: (places: Places) => void;
}

/** The places, each with a switch. */
export function Where({ folders, places, onChange }: Props) {
  const setFolder = (id: string, on: boolean) =>
    onChange({
      ...places,
      folders: on ? [...places.folders, id] : places.folders.filter((f) => f !== id),
    });
  return (
    <section aria-label="Where">
      <h2 className="mb-2 font-name text-base">Where</h2>
      <div className="divide-y divide-line rounded-[8px] border border-line bg-card [&>*]:px-3 [&>*]:py-2">
        {folders.map((folder) => (
          <Toggle
            key={folder.id}
            label={folder.name}
            note={
              folder.problem ? <span className="text-brick">{folder.problem}</span> : folder.path
            }
            checked={places.folders.includes(folder.id)}
            onChange={(on) => setFolder(folder.id, on)}
          />
        ))}
        <Toggle
          label="Clipboard"
          note="paste it anywhere"
          checked={places.clipboard}
          onChange={(clipboard) => onChange({ ...places, clipboard })}
        />
      </div>
    </section>
  );
}
