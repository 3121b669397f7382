import { zodResolver } from '@hookform/resolvers/zod';
import { useState, type ChangeEvent } from 'react';
import { useForm } from 'react-hook-form';
import type { z } from 'zod';
import { folderInputSchema, type Folder } from '@/core/contracts/folder';
import { firstRules } from '@/core/contracts/rules';
import { safeName } from '@/core/naming/safeName';
import { ApiError, messageOf } from '../api/ask';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { BrowsePlaces } from './BrowsePlaces';
import { fieldLook, Row, RulesOfForm } from './Rules';

interface Props {
  folder: Folder | null;
  /** All folders, to say what this one doubles or replaces. */
  others: readonly Folder[];
  /** The allowed roots; a new path begins with the last. */
  roots: readonly string[];
  onDone: () => Promise<unknown>;
}

type Fields = z.input<typeof folderInputSchema>;

/** What can be set of a folder, without what is only known of it. */
const pickInput = ({
  id: _,
  nextNumber: __,
  free: ___,
  problem: ____,
  unconfirmed: _____,
  ...input
}: Folder): Fields => input;

/** The name as the last part of a path; nothing for no name yet. */
const followed = (name: string): string => (name.trim() === '' ? '' : safeName(name));

/** What being added or changed like this means for the other folders. */
function Remarks({ folder, others, now }: Pick<Props, 'folder' | 'others'> & { now: Fields }) {
  const rest = others.filter((one) => one.id !== folder?.id);
  const usual = rest.find((one) => one.isDefault);
  const plain = (path: string) => path.trim().replace(/\/+$/, '');
  const double = rest.find((one) => plain(one.path) === plain(now.path));
  const namesake = rest.find((one) => one.name.trim() === now.name.trim());
  const said = [
    rest.length === 0 && 'It is the only folder, so it is the default.',
    now.isDefault && usual && `“${usual.name}” will no longer be the default.`,
    double && `“${double.name}” keeps in the same place.`,
    namesake && now.name.trim() !== '' && `There is a folder called “${namesake.name}” already.`,
    !folder && 'The folder is made if it is not there.',
  ].filter(Boolean);
  return (
    <p role="status" className="text-[13px] text-soft">
      {said.join(' ')}
    </p>
  );
}

/** Everything of a folder; its path is checked by the server when it is entered. */
export function FolderForm({ folder, others, roots, onDone }: Props) {
  const firstPath = roots.at(-1) ?? '';
  const [browsing, setBrowsing] = useState(false);
  /** The path follows the name until somebody chooses it. */
  const [follows, setFollows] = useState(folder === null);
  const [refused, setRefused] = useState<ApiError | Error | null>(null);
  const form = useForm<Fields, unknown, z.output<typeof folderInputSchema>>({
    resolver: zodResolver(folderInputSchema),
    defaultValues: folder
      ? { ...pickInput(folder), make: false }
      : {
          ...{ name: '', path: `${firstPath}/`, ...firstRules },
          ...{ numberBy: 'folder', isDefault: false, make: true },
        },
  });
  const { register, handleSubmit, watch, formState } = form;
  const { errors } = formState;
  const submit = handleSubmit(async (input) => {
    setRefused(null);
    try {
      if (folder) await api.changeFolder(folder.id, input);
      else await api.addFolder(input);
      await onDone();
    } catch (error) {
      setRefused(error instanceof Error ? error : new Error(messageOf(error)));
    }
  });
  const missing = refused instanceof ApiError && refused.code === 'folder-missing';
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
      <div className="grid grid-cols-[1fr_2fr_auto] items-end gap-3">
        <Row label="Name" error={errors.name?.message}>
          <input
            className={fieldLook}
            aria-invalid={!!errors.name}
            {...register('name', {
              onChange: (event: ChangeEvent<HTMLInputElement>) => {
                if (follows) form.setValue('path', `${firstPath}/${followed(event.target.value)}`);
              },
            })}
          />
        </Row>
        <Row label="Path" error={errors.path?.message}>
          <input
            className={`${fieldLook} font-measure text-[13px]`}
            aria-invalid={!!errors.path || !!refused}
            spellCheck={false}
            {...register('path', { onChange: () => setFollows(false) })}
          />
        </Row>
        <Button className="h-9" aria-expanded={browsing} onClick={() => setBrowsing(!browsing)}>
          Browse
        </Button>
      </div>
      {browsing && (
        <BrowsePlaces
          start={folder?.path ?? firstPath}
          roots={roots}
          onChoose={(path) => {
            form.setValue('path', path);
            setFollows(false);
            setBrowsing(false);
          }}
        />
      )}
      <Remarks folder={folder} others={others} now={watch()} />
      {refused && (
        <Problem
          action={
            missing && (
              <Button
                onClick={() => {
                  form.setValue('make', true);
                  void submit();
                }}
              >
                Make it
              </Button>
            )
          }
        >
          {refused.message}
        </Problem>
      )}
      <RulesOfForm form={form} />
      <Row label="The number {n} counts on">
        <select className={fieldLook} {...register('numberBy')}>
          <option value="folder">in this folder</option>
          <option value="pattern">for this pattern, in whatever folder</option>
        </select>
      </Row>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-petrol"
          disabled={folder?.isDefault}
          {...register('isDefault')}
        />
        The default folder
      </label>
      <div className="flex justify-end">
        <Button type="submit" look="next" disabled={formState.isSubmitting}>
          {folder ? 'Save the folder' : 'Add the folder'}
        </Button>
      </div>
    </form>
  );
}
