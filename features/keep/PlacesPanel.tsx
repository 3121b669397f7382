import { FolderPlus } from 'lucide-react';
import { useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import { limits } from '@/core/values/limits';
import type { Remote } from '@/core/contracts/remote';
import { messageOf } from '../api/ask';
import { leaveByKey } from '../keys/focus';
import { formatBytes } from '../ui/format';
import { Problem } from '../ui/Problem';
import { IconButton } from '../ui/IconButton';
import { addBrowserFolder, canHaveFolders, type BrowserFolder } from './browser/folders';
import { PlaceSwitch } from './PlaceSwitch';
import { LinkRules } from './LinkRules';
import { clipForms, toggled, type ClipForm, type Places } from './chosenPlaces';

interface Props {
  folders: Folder[];
  browserFolders: readonly BrowserFolder[];
  remotes: readonly Remote[];
  places: Places;
  onChange: (places: Places) => void;
}

interface PartProps {
  places: Places;
  set: (change: Partial<Places>) => void;
}

const problemOf = (folder: Folder): string | null => {
  if (folder.problem) return folder.problem;
  const little = folder.free !== null && folder.free < limits.littleRoom;
  return little ? `Only ${formatBytes(folder.free ?? 0)} are free there.` : null;
};

const select = 'mt-1 h-8 w-full rounded-[6px] border border-edge bg-card px-2';

/** The places, each with a switch. */
export function PlacesPanel({ folders, browserFolders, remotes, places, onChange }: Props) {
  const [problem, setProblem] = useState<string | null>(null);
  const set = (change: Partial<Places>) => onChange({ ...places, ...change });
  const choose = async () => {
    try {
      const added = await addBrowserFolder();
      if (added) set({ browser: toggled(places.browser, added.id, true) });
      setProblem(null);
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const troubled = folders.filter((f) => places.folders.includes(f.id) && problemOf(f));
  return (
    <section aria-label="Where">
      <h2 className="mb-1 flex h-7 items-center justify-between font-name text-base">
        Where
        {canHaveFolders() && (
          <IconButton label="Another folder, for this browser" onClick={() => void choose()}>
            <FolderPlus size={16} strokeWidth={1.75} />
          </IconButton>
        )}
      </h2>
      <div className="grid grid-cols-2 gap-1">
        {folders.map((folder) => (
          <PlaceSwitch
            key={folder.id}
            label={folder.name}
            note={folder.path}
            problem={problemOf(folder)}
            on={places.folders.includes(folder.id)}
            onChange={(on) => set({ folders: toggled(places.folders, folder.id, on) })}
          />
        ))}
        {browserFolders.map((folder) => (
          <PlaceSwitch
            key={folder.id}
            label={folder.name}
            note={`“${folder.handle.name}”, written by this browser`}
            on={places.browser.includes(folder.id)}
            onChange={(on) => set({ browser: toggled(places.browser, folder.id, on) })}
          />
        ))}
        {remotes.map((remote) => (
          <PlaceSwitch
            key={remote.id}
            label={remote.name}
            note={remote.waiting ? `${remote.url} · ${remote.waiting} waiting` : remote.url}
            on={places.remotes.includes(remote.id)}
            onChange={(on) => set({ remotes: toggled(places.remotes, remote.id, on) })}
          />
        ))}
        <PlaceSwitch
          label="Clipboard"
          note="paste it anywhere"
          on={places.clipboard}
          onChange={(clipboard) => set({ clipboard })}
        />
        <PlaceSwitch
          label="Link"
          note="shows this picture only; can be taken back"
          on={places.link}
          onChange={(link) => set({ link })}
        />
        <PlaceSwitch
          label="Mail"
          note="a message file for your mail program"
          on={places.mail}
          onChange={(mail) => set({ mail })}
        />
      </div>
      {troubled.map((folder) => (
        <p key={folder.id} className="mt-1 text-[13px] text-brick">
          {folder.name}: {problemOf(folder)}
        </p>
      ))}
      {places.clipboard && <ClipForm places={places} set={set} />}
      {places.link && <LinkRules places={places} set={set} />}
      {places.mail && <Message places={places} set={set} />}
      {problem && <Problem>{problem}</Problem>}
    </section>
  );
}

const formLabels: Record<ClipForm, string> = {
  picture: 'the picture',
  both: 'picture and its description',
  markdown: 'a Markdown line with a link',
  html: 'an HTML line with a link',
  path: 'the path of the copy in a folder',
};

function ClipForm({ places, set }: PartProps) {
  return (
    <select
      aria-label="What goes to the clipboard"
      value={places.clipForm}
      onChange={(event) => {
        const clipForm = clipForms.find((form) => form === event.target.value);
        if (clipForm) set({ clipForm });
      }}
      className={select}
    >
      {clipForms.map((form) => (
        <option key={form} value={form}>
          {formLabels[form]}
        </option>
      ))}
    </select>
  );
}

function Message({ places, set }: PartProps) {
  const { message } = places;
  const change = (part: Partial<Places['message']>) => set({ message: { ...message, ...part } });
  return (
    <div className="mt-1 mb-1 flex flex-col gap-1">
      {(['to', 'subject'] as const).map((name) => (
        <label key={name} className="flex items-center gap-2">
          <span className="w-14 text-[13px] text-soft">{name === 'to' ? 'To' : 'Subject'}</span>
          <input
            value={message[name]}
            placeholder={name === 'subject' ? 'the shot’s name' : ''}
            maxLength={300}
            onChange={(event) => change({ [name]: event.target.value })}
            onKeyDown={leaveByKey}
            className="h-8 min-w-0 grow rounded-[6px] border border-edge bg-card px-2"
          />
        </label>
      ))}
      <label className="flex items-center gap-2 text-[13px]">
        <input
          type="checkbox"
          className="size-4 accent-petrol"
          checked={message.drop}
          onChange={(event) => change({ drop: event.target.checked })}
        />
        Only into the mail drop, to try it
      </label>
    </div>
  );
}
