import { PencilLine, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { Remote } from '@/core/contracts/remote';
import { api } from '../../api/client';
import { useFormats } from '../../keep/useFormats';
import { Button } from '../../ui/Button';
import { Confirm } from '../../ui/Confirm';
import { IconButton } from '../../ui/IconButton';
import { Modal } from '../../ui/Modal';
import { rulesInWords } from '../rulesInWords';
import type { Act } from '../../ui/act';
import { Unconfirmed } from '../Unconfirmed';
import { RemoteForm } from './RemoteForm';

const icon = { size: 18, strokeWidth: 1.75 };

/** Folders on other machines. */
export function Remotes({ remotes, act }: { remotes: readonly Remote[]; act: Act }) {
  const formats = useFormats();
  const [editing, setEditing] = useState<Remote | 'new' | null>(null);
  const [removing, setRemoving] = useState<Remote | null>(null);
  return (
    <section aria-label="Remote folders">
      <div className="mb-2 flex items-center gap-2">
        <h2 className="grow font-name text-lg">Remote folders</h2>
        <Button onClick={() => void act(api.practiceRemote())}>Practice remote folder</Button>
        <Button icon={<Plus size={16} strokeWidth={1.75} />} onClick={() => setEditing('new')}>
          Add a remote folder
        </Button>
      </div>
      <p className="mb-2 text-soft">
        Places on other machines, over WebDAV. What cannot be sent waits here and is sent later.
      </p>
      <ul className="flex flex-col gap-2">
        {remotes.map((remote) => (
          <li
            key={remote.id}
            className="flex items-center gap-3 rounded-[9px] border border-line bg-card p-3"
          >
            <div className="min-w-0 grow">
              <p className="font-name text-base">{remote.name}</p>
              <p className="font-measure text-[13px] break-all text-soft">{remote.url}</p>
              <p className="text-[13px] text-soft">
                {rulesInWords(remote, formats)} ·{' '}
                <span className="font-measure">{remote.pattern}</span>
              </p>
              {remote.unconfirmed && (
                <Unconfirmed
                  name={remote.name}
                  words="Nothing is sent there before you have looked where it leads; its password is not in an archive."
                  onConfirm={() => void act(api.changeRemote(remote.id, { confirmed: true }))}
                />
              )}
              {remote.caution && <p className="text-[13px] text-brick">{remote.caution}</p>}
            </div>
            <IconButton label={`Edit ${remote.name}`} onClick={() => setEditing(remote)}>
              <PencilLine {...icon} />
            </IconButton>
            <IconButton label={`Remove ${remote.name}`} onClick={() => setRemoving(remote)}>
              <Trash2 {...icon} />
            </IconButton>
          </li>
        ))}
      </ul>
      <Modal
        open={editing !== null}
        title={editing === 'new' ? 'Add a remote folder' : 'Edit the remote folder'}
        onClose={() => setEditing(null)}
      >
        {editing !== null && (
          <RemoteForm
            remote={editing === 'new' ? null : editing}
            // It closes over what is stored now: whoever edits at once sees no older values.
            onDone={() => act(Promise.resolve()).finally(() => setEditing(null))}
          />
        )}
      </Modal>
      <Confirm
        open={removing !== null}
        title={`Remove “${removing?.name ?? ''}” from the list?`}
        description={
          removing?.waiting
            ? `${removing.waiting} copies still wait to be sent there; they are not sent any more. What was sent stays.`
            : 'What was sent there stays. Rezzik only stops offering it.'
        }
        verb="Remove"
        onYes={() => removing && void act(api.removeRemote(removing.id))}
        onClose={() => setRemoving(null)}
      />
    </section>
  );
}
