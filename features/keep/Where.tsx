import type { Folder } from '@/core/contracts/folder';
import { limits } from '@/core/contracts/limits';
import type { Remote } from '@/core/contracts/remote';
import { formatBytes } from '../ui/format';
import { Toggle } from '../ui/Toggle';

/** In which form a shot goes to the clipboard. */
export const clipForms = ['picture', 'both', 'markdown', 'html'] as const;
export type ClipForm = (typeof clipForms)[number];
const formLabels: Record<ClipForm, string> = {
  picture: 'the picture',
  both: 'picture and its description',
  markdown: 'a Markdown line with a link',
  html: 'an HTML line with a link',
};

export interface Places {
  folders: string[];
  remotes: string[];
  clipboard: boolean;
  clipForm: ClipForm;
  link: boolean;
  /** Days until a new link ends; null for never. */
  linkDays: number | null;
  mail: boolean;
}

export const countOf = (p: Places): number =>
  p.folders.length + p.remotes.length + [p.clipboard, p.link, p.mail].filter(Boolean).length;

interface Props {
  folders: Folder[];
  remotes: readonly Remote[];
  places: Places;
  onChange: (places: Places) => void;
}

const noteOf = (folder: Folder) => {
  if (folder.problem) return <span className="text-brick">{folder.problem}</span>;
  const little = folder.free !== null && folder.free < limits.littleRoom;
  return (
    <>
      <span className="block truncate" title={folder.path}>
        {folder.path}
      </span>
      {little && (
        <span className="block text-brick">
          Only {formatBytes(folder.free ?? 0)} are free there.
        </span>
      )}
    </>
  );
};

const toggled = (list: string[], id: string, on: boolean): string[] =>
  on ? [...list, id] : list.filter((one) => one !== id);

/** The places, each with a switch. */
export function Where({ folders, remotes, places, onChange }: Props) {
  const set = (change: Partial<Places>) => onChange({ ...places, ...change });
  return (
    <section aria-label="Where">
      <h2 className="mb-2 font-name text-base">Where</h2>
      <div className="divide-y divide-line rounded-[8px] border border-line bg-card [&>*]:px-3 [&>*]:py-1">
        {folders.map((folder) => (
          <Toggle
            key={folder.id}
            label={folder.name}
            note={noteOf(folder)}
            checked={places.folders.includes(folder.id)}
            onChange={(on) => set({ folders: toggled(places.folders, folder.id, on) })}
          />
        ))}
        {remotes.map((remote) => (
          <Toggle
            key={remote.id}
            label={remote.name}
            note={remote.waiting ? `${remote.url} · ${remote.waiting} waiting` : remote.url}
            checked={places.remotes.includes(remote.id)}
            onChange={(on) => set({ remotes: toggled(places.remotes, remote.id, on) })}
          />
        ))}
        <div>
          <Toggle
            label="Clipboard"
            note="paste it anywhere"
            checked={places.clipboard}
            onChange={(clipboard) => set({ clipboard })}
          />
          {places.clipboard && (
            <select
              aria-label="What goes to the clipboard"
              value={places.clipForm}
              onChange={(event) => {
                const clipForm = clipForms.find((form) => form === event.target.value);
                if (clipForm) set({ clipForm });
              }}
              className="mt-1 h-8 w-full rounded-[6px] border border-edge bg-card px-2"
            >
              {clipForms.map((form) => (
                <option key={form} value={form}>
                  {formLabels[form]}
                </option>
              ))}
            </select>
          )}
        </div>
        <div>
          <Toggle
            label="Link"
            note="shows this picture only; can be taken back"
            checked={places.link}
            onChange={(link) => set({ link })}
          />
          {places.link && (
            <select
              aria-label="How long the link lasts"
              value={places.linkDays ?? 'never'}
              onChange={(event) =>
                set({
                  linkDays: event.target.value === 'never' ? null : Number(event.target.value),
                })
              }
              className="mt-1 h-8 w-full rounded-[6px] border border-edge bg-card px-2"
            >
              <option value={1}>ends after a day</option>
              <option value={7}>ends after a week</option>
              <option value={30}>ends after 30 days</option>
              <option value="never">does not end by itself</option>
            </select>
          )}
        </div>
        <Toggle
          label="Mail"
          note="a message file for your mail program"
          checked={places.mail}
          onChange={(mail) => set({ mail })}
        />
      </div>
    </section>
  );
}
