import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { z } from 'zod';
import { folderInputSchema, type Folder } from '@/core/contracts/folder';
import { firstRules } from '@/core/contracts/rules';
import { api, ApiError, messageOf } from '../api/client';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { fieldLook, Row, RulesFields, rulesOf } from './Rules';

interface Props {
  folder: Folder | null;
  /** An allowed root, to begin a new path with. */
  firstPath: string;
  onDone: () => void;
}

type Fields = z.input<typeof folderInputSchema>;

/** What can be set of a folder, without what is only known of it. */
const pickInput = ({ id: _, nextNumber: __, free: ___, problem: ____, ...input }: Folder): Fields =>
  input;

/** Everything of a folder; its path is checked by the server when it is entered. */
export function FolderForm({ folder, firstPath, onDone }: Props) {
  const [refused, setRefused] = useState<ApiError | Error | null>(null);
  const form = useForm<Fields, unknown, z.output<typeof folderInputSchema>>({
    resolver: zodResolver(folderInputSchema),
    defaultValues: folder
      ? { ...pickInput(folder), make: false }
      : { name: '', path: `${firstPath}/`, ...firstRules, numberBy: 'folder', isDefault: false },
  });
  const { register, handleSubmit, watch, formState } = form;
  const { errors } = formState;
  const submit = handleSubmit(async (input) => {
    setRefused(null);
    try {
      if (folder) await api.changeFolder(folder.id, input);
      else await api.addFolder(input);
      onDone();
    } catch (error) {
      setRefused(error instanceof Error ? error : new Error(messageOf(error)));
    }
  });
  const missing = refused instanceof ApiError && refused.code === 'folder-missing';
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
      <Row label="Name" error={errors.name?.message}>
        <input className={fieldLook} aria-invalid={!!errors.name} {...register('name')} />
      </Row>
      <Row label="Path" error={errors.path?.message}>
        <input
          className={`${fieldLook} font-measure text-[13px]`}
          aria-invalid={!!errors.path || !!refused}
          spellCheck={false}
          {...register('path')}
        />
      </Row>
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
      <RulesFields
        rules={rulesOf(watch())}
        errors={{ quality: errors.quality?.message, pattern: errors.pattern?.message }}
        onChange={(change) =>
          form.reset({ ...form.getValues(), ...change }, { keepIsSubmitted: true })
        }
      />
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
