import { zodResolver } from '@hookform/resolvers/zod';
import { useState, type ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import type { z } from 'zod';
import { folderInputSchema, type Folder } from '@/core/contracts/folder';
import { firstPattern, nameFrom, patternProblem } from '@/core/naming/pattern';
import { api, ApiError, messageOf } from '../api/client';
import { firstFacts } from '@/core/contracts/format';
import { OptionFields } from '../keep/OptionFields';
import { Size } from '../keep/Size';
import { factsFor, useFormats } from '../keep/useFormats';
import { Button } from '../ui/Button';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { PatternHelp } from './PatternHelp';

interface Props {
  folder: Folder | null;
  /** An allowed root, to begin a new path with. */
  firstPath: string;
  onDone: () => void;
}

type Fields = z.input<typeof folderInputSchema>;

const field =
  'h-9 w-full rounded-[7px] border border-edge bg-card px-2.5 aria-invalid:border-brick';

/** Everything of a folder; its path is checked by the server when it is entered. */
export function FolderForm({ folder, firstPath, onDone }: Props) {
  const [refused, setRefused] = useState<ApiError | Error | null>(null);
  const form = useForm<Fields, unknown, z.output<typeof folderInputSchema>>({
    resolver: zodResolver(folderInputSchema),
    defaultValues: folder
      ? {
          name: folder.name,
          path: folder.path,
          format: folder.format,
          quality: folder.quality,
          options: folder.options,
          size: folder.size,
          maxBytes: folder.maxBytes,
          facts: folder.facts,
          pattern: folder.pattern,
          isDefault: folder.isDefault,
          make: false,
        }
      : {
          name: '',
          path: `${firstPath}/`,
          format: 'png',
          quality: 85,
          options: {},
          size: {},
          maxBytes: null,
          facts: firstFacts,
          pattern: firstPattern,
          isDefault: false,
          make: false,
        },
  });
  const { register, handleSubmit, watch, formState } = form;
  const { errors } = formState;
  const formats = useFormats();
  const facts = factsFor(formats, watch('format') ?? 'png');
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
        <input className={field} aria-invalid={!!errors.name} {...register('name')} />
      </Row>
      <Row label="Path" error={errors.path?.message}>
        <input
          className={`${field} font-measure text-[13px]`}
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
      <div className="grid grid-cols-2 gap-3">
        <Row label="Format">
          <select
            className={field}
            {...register('format', { onChange: () => form.setValue('options', {}) })}
          >
            {formats.map(({ name, label }) => (
              <option key={name} value={name}>
                {label}
              </option>
            ))}
          </select>
        </Row>
        {facts?.quality && (
          <Row label="Quality, 1 to 100" error={errors.quality?.message}>
            <input
              className={field}
              inputMode="numeric"
              {...register('quality', { valueAsNumber: true })}
            />
          </Row>
        )}
      </div>
      {facts && (
        <OptionFields
          fields={facts.fields}
          options={watch('options') ?? {}}
          onChange={(options) => form.setValue('options', options)}
        />
      )}
      <Size
        own={{ width: 1440, height: 900 }}
        size={watch('size') ?? {}}
        onChange={(size) => form.setValue('size', size)}
      />
      <NumberInput
        label="At most, KB (0 for any)"
        value={(watch('maxBytes') ?? 0) / 1000}
        min={0}
        max={100_000}
        onCommit={(kb) => form.setValue('maxBytes', kb > 0 ? Math.round(kb * 1000) : null)}
      />
      <label className="flex items-center gap-2">
        <input type="checkbox" className="size-4 accent-petrol" {...register('facts.words')} />
        Title, description and time are written into the file
      </label>
      <label className="flex items-center gap-2">
        <input type="checkbox" className="size-4 accent-petrol" {...register('facts.origin')} />
        So are the address and the window’s title
      </label>
      <Row label="Name pattern" error={errors.pattern?.message}>
        <input
          className={`${field} font-measure text-[13px]`}
          aria-invalid={!!errors.pattern}
          spellCheck={false}
          {...register('pattern')}
        />
      </Row>
      <Example
        pattern={watch('pattern') ?? ''}
        extension={facts?.extension ?? watch('format') ?? 'png'}
      />
      <PatternHelp />
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

function Row({ label, error, children }: { label: string; error?: string; children: ReactNode }) {
  return (
    <label className="block">
      <span className="mb-1 block font-bold">{label}</span>
      {children}
      {error && <span className="mt-1 block text-brick">{error}</span>}
    </label>
  );
}

function Example({ pattern, extension }: { pattern: string; extension: string }) {
  if (patternProblem(pattern)) return null;
  const name = nameFrom(pattern, {
    title: 'Seed order slip',
    window: 'Seed exchange – order',
    takenAt: '2026-11-23T14:02:11Z',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    width: 1440,
    height: 900,
    number: 7,
  });
  return (
    <p className="-mt-2 text-[13px] text-soft">
      gives, for example, <span className="font-measure break-all">{`${name}.${extension}`}</span>
    </p>
  );
}
