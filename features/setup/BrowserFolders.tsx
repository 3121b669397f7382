import { zodResolver } from '@hookform/resolvers/zod';
import { FolderPlus, PencilLine, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { limits } from '@/core/values/limits';
import { rulesShape } from '@/core/contracts/rules';
import { line } from '@/core/values/text';
import { messageOf } from '../api/ask';
import {
  addBrowserFolder,
  canHaveFolders,
  removeBrowserFolder,
  saveBrowserFolder,
  useBrowserFolders,
  type BrowserFolder,
} from '../keep/browser/folders';
import { useFormats } from '../keep/useFormats';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { fieldLook, Row, RulesFields, rulesOf } from './Rules';
import { rulesInWords } from './rulesInWords';

const icon = { size: 18, strokeWidth: 1.75 };

/** Folders of the computer that the browser runs on, written by the browser itself. */
export function BrowserFolders() {
  const folders = useBrowserFolders();
  const formats = useFormats();
  const [editing, setEditing] = useState<BrowserFolder | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const act = (work: Promise<unknown>) => {
    work.then(
      () => setProblem(null),
      (error: unknown) => setProblem(messageOf(error)),
    );
  };
  return (
    <section aria-label="Folders of this browser" className="mt-8">
      <div className="mb-1 flex items-center gap-4">
        <h2 className="grow font-name text-lg">Folders of this browser</h2>
        {canHaveFolders() && (
          <Button
            icon={<FolderPlus size={18} strokeWidth={1.75} />}
            onClick={() => act(addBrowserFolder())}
          >
            Choose a folder
          </Button>
        )}
      </div>
      <p className="mb-3 text-soft">
        {canHaveFolders()
          ? 'On the computer you sit at, wherever Rezzik runs. Only this browser knows them; it may ask again whether they may be written into.'
          : 'This browser has no way to write into folders. Download pictures instead, or use a browser that has one.'}
      </p>
      {problem && <Problem>{problem}</Problem>}
      <ul className="flex flex-col gap-2">
        {folders.map((folder) => (
          <li
            key={folder.id}
            className="flex items-center gap-3 rounded-[9px] border border-line bg-card p-3"
          >
            <div className="min-w-0 grow">
              <p className="font-name text-base">{folder.name}</p>
              <p className="text-[13px] text-soft">
                “{folder.handle.name}” · {rulesInWords(folder, formats)} ·{' '}
                <span className="font-measure">{folder.pattern}</span>
              </p>
            </div>
            <IconButton label={`Edit ${folder.name}`} onClick={() => setEditing(folder)}>
              <PencilLine {...icon} />
            </IconButton>
            <IconButton
              label={`Forget ${folder.name}`}
              onClick={() => act(removeBrowserFolder(folder.id))}
            >
              <Trash2 {...icon} />
            </IconButton>
          </li>
        ))}
      </ul>
      <Modal open={editing !== null} title="Edit the folder" onClose={() => setEditing(null)}>
        {editing && (
          <Form
            folder={editing}
            onSave={(folder) => {
              act(saveBrowserFolder(folder));
              setEditing(null);
            }}
          />
        )}
      </Modal>
    </section>
  );
}

const inputSchema = z.object({
  name: line(limits.nameLength).trim().min(1, 'must not be empty'),
  ...rulesShape,
});
type Fields = z.input<typeof inputSchema>;

interface FormProps {
  folder: BrowserFolder;
  onSave: (folder: BrowserFolder) => void;
}

function Form({ folder, onSave }: FormProps) {
  const { handle: _, id: __, nextNumber: ___, ...defaultValues } = folder;
  const form = useForm<Fields, unknown, z.output<typeof inputSchema>>({
    resolver: zodResolver(inputSchema),
    defaultValues,
  });
  const { errors } = form.formState;
  const submit = form.handleSubmit((input) => onSave({ ...folder, ...input }));
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
      <Row label="Name" error={errors.name?.message}>
        <input className={fieldLook} aria-invalid={!!errors.name} {...form.register('name')} />
      </Row>
      <RulesFields
        rules={rulesOf(form.watch())}
        errors={{ quality: errors.quality?.message, pattern: errors.pattern?.message }}
        onChange={(change) =>
          form.reset({ ...form.getValues(), ...change }, { keepIsSubmitted: true })
        }
      />
      <div className="flex justify-end">
        <Button type="submit" look="next">
          Save the folder
        </Button>
      </div>
    </form>
  );
}
