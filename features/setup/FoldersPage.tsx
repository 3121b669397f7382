import { FolderPlus, PencilLine, Star, Trash2 } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { useFormats } from '../keep/useFormats';
import { Button } from '../ui/Button';
import { Confirm } from '../ui/Confirm';
import { IconButton } from '../ui/IconButton';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { limits } from '@/core/values/limits';
import { formatBytes } from '../ui/format';
import { BrowserFolders } from './BrowserFolders';
import { FolderForm } from './FolderForm';
import { rulesInWords } from './rulesInWords';
import { Unconfirmed } from './Unconfirmed';

/** The places on the computer Rezzik runs on where copies are kept. */
export function FoldersPage() {
  const formats = useFormats();
  const [folders, setFolders] = useState<Folder[] | null>(null);
  const [roots, setRoots] = useState<string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [editing, setEditing] = useState<Folder | 'new' | null>(null);
  const [removing, setRemoving] = useState<Folder | null>(null);
  const read = useCallback(async () => {
    try {
      const answer = await api.folders();
      setFolders(answer.folders);
      setRoots(answer.roots);
      setProblem(null);
    } catch (error) {
      setProblem(messageOf(error));
    }
  }, []);
  useEffect(() => void read(), [read]);
  const act = async (work: Promise<unknown>) => {
    try {
      await work;
    } catch (error) {
      setProblem(messageOf(error));
      return;
    }
    await read();
  };
  return (
    <div className="max-w-3xl">
      <div className="mb-1 flex items-center gap-4">
        <h1 className="grow font-name text-xl">Folders</h1>
        <Button
          look="next"
          icon={<FolderPlus size={18} strokeWidth={1.75} />}
          onClick={() => setEditing('new')}
        >
          Add a folder
        </Button>
      </div>
      <p className="mb-4 text-soft">
        Copies are kept on the computer Rezzik runs on, in these places and below:{' '}
        <span className="font-measure text-[13px] break-all">{roots.join(', ')}</span>
      </p>
      {problem && (
        <Problem action={<Button onClick={() => void read()}>Try again</Button>}>{problem}</Problem>
      )}
      {folders?.length === 0 && (
        <p className="rounded-[9px] border border-dashed border-edge p-6 text-center text-soft">
          No folder yet. Add the first one, and Keep has a place to put copies.
        </p>
      )}
      <ul className="flex flex-col gap-2">
        {folders?.map((folder) => (
          <li
            key={folder.id}
            className="flex items-center gap-3 rounded-[9px] border border-line bg-card p-3"
          >
            <div className="min-w-0 grow">
              <p className="flex flex-wrap items-center gap-2">
                <span className="font-name text-base">{folder.name}</span>
                {folder.isDefault && (
                  <span className="rounded-full border border-petrol px-2 text-[13px] text-petrol">
                    default
                  </span>
                )}
              </p>
              <p className="font-measure text-[13px] break-all text-soft">{folder.path}</p>
              <p className="text-[13px] text-soft">
                {rulesInWords(folder, formats)} ·{' '}
                <span className="font-measure">{folder.pattern}</span>
              </p>
              {folder.free !== null && folder.free < limits.littleRoom && (
                <p className="text-brick">Only {formatBytes(folder.free)} are free there.</p>
              )}
              {folder.unconfirmed ? (
                <Unconfirmed
                  name={folder.name}
                  words="Nothing is kept there before you have looked where it leads."
                  onConfirm={() => void act(api.changeFolder(folder.id, { confirmed: true }))}
                />
              ) : (
                folder.problem && <p className="text-brick">{folder.problem}</p>
              )}
            </div>
            {!folder.isDefault && (
              <IconButton
                label={`Make ${folder.name} the default`}
                onClick={() => void act(api.changeFolder(folder.id, { isDefault: true }))}
              >
                <Star size={18} strokeWidth={1.75} />
              </IconButton>
            )}
            <IconButton label={`Edit ${folder.name}`} onClick={() => setEditing(folder)}>
              <PencilLine size={18} strokeWidth={1.75} />
            </IconButton>
            <IconButton label={`Remove ${folder.name}`} onClick={() => setRemoving(folder)}>
              <Trash2 size={18} strokeWidth={1.75} />
            </IconButton>
          </li>
        ))}
      </ul>
      <BrowserFolders />
      <Modal
        open={editing !== null}
        wide
        title={editing === 'new' ? 'Add a folder' : 'Edit the folder'}
        onClose={() => setEditing(null)}
      >
        {editing !== null && (
          <FolderForm
            folder={editing === 'new' ? null : editing}
            others={folders ?? []}
            roots={roots}
            onDone={() => read().finally(() => setEditing(null))}
          />
        )}
      </Modal>
      <Confirm
        open={removing !== null}
        title={`Remove “${removing?.name ?? ''}” from the list?`}
        description="The folder and the files in it stay where they are. Rezzik only stops offering it."
        verb="Remove"
        onYes={() => removing && void act(api.removeFolder(removing.id))}
        onClose={() => setRemoving(null)}
      />
    </div>
  );
}
