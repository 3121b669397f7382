import type { ReactNode } from 'react';
import type { z } from 'zod';
import { factsRuleSchema } from '@/core/contracts/format';
import { firstRules, type Rules } from '@/core/contracts/rules';
import { nameFrom, pathFrom, patternProblem } from '@/core/naming/pattern';
import { OptionFields } from '../keep/OptionFields';
import { SizePanel } from '../keep/SizePanel';
import { factsFor, useFormats } from '../keep/useFormats';
import { NumberInput } from '../ui/NumberInput';
import { LookChoice } from '../looks/LookChoice';
import { PatternHelp } from '../keep/PatternHelp';

export const fieldLook =
  'h-9 w-full rounded-[7px] border border-edge bg-card px-2.5 aria-invalid:border-brick';

interface RowProps {
  label: string;
  error?: string | undefined;
  children: ReactNode;
}

/** A field under its label, with what is wrong with it. */
export function Row({ label, error, children }: RowProps) {
  return (
    <label className="block">
      <span className="mb-1 block font-bold">{label}</span>
      {children}
      {error && <span className="mt-1 block text-brick">{error}</span>}
    </label>
  );
}

/** The rules that stand in a form, whole: what is not said there is as usual. */
export const rulesOf = ({
  facts,
  ...values
}: Partial<Omit<Rules, 'facts'>> & { facts?: z.input<typeof factsRuleSchema> }): Rules => ({
  ...firstRules,
  ...values,
  facts: factsRuleSchema.parse(facts ?? {}),
});

interface RulesForm<T> {
  watch: () => T;
  getValues: () => T;
  reset: (values: T, options: { keepIsSubmitted: boolean }) => void;
  formState: { errors: { quality?: Wrong; pattern?: Wrong } };
}

type Wrong = { message?: string | undefined } | undefined;
type WrittenRules = Parameters<typeof rulesOf>[0];

/** The fields of the rules as they stand in a form. */
export function RulesOfForm<T extends WrittenRules>({ form }: { form: RulesForm<T> }) {
  const { quality, pattern } = form.formState.errors;
  return (
    <RulesFields
      rules={rulesOf(form.watch())}
      errors={{ quality: quality?.message, pattern: pattern?.message }}
      onChange={(change) =>
        form.reset({ ...form.getValues(), ...change }, { keepIsSubmitted: true })
      }
    />
  );
}

interface Props {
  rules: Rules;
  errors?: { quality?: string | undefined; pattern?: string | undefined };
  onChange: (change: Partial<Rules>) => void;
}

/** How a place wants what is kept in it: the same for every kind of folder. */
export function RulesFields({ rules, errors = {}, onChange }: Props) {
  const formats = useFormats();
  const facts = factsFor(formats, rules.format);
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Row label="Format">
          <select
            className={fieldLook}
            value={rules.format}
            onChange={(event) => {
              const next = formats.find(({ name }) => name === event.target.value);
              if (next) onChange({ format: next.name, options: {} });
            }}
          >
            {formats.map(({ name, label }) => (
              <option key={name} value={name}>
                {label}
              </option>
            ))}
          </select>
        </Row>
        {facts?.quality && (
          <Row label="Quality, 1 to 100" error={errors.quality}>
            <input
              className={fieldLook}
              inputMode="numeric"
              aria-invalid={!!errors.quality}
              value={Number.isFinite(rules.quality) ? rules.quality : ''}
              onChange={(event) => onChange({ quality: Number.parseInt(event.target.value, 10) })}
            />
          </Row>
        )}
      </div>
      <div className="grid gap-x-6 gap-y-1 lg:grid-cols-2">
        <div>
          {facts && (
            <OptionFields
              fields={facts.fields}
              options={rules.options}
              onChange={(options) => onChange({ options })}
            />
          )}
        </div>
        <div className="flex flex-col gap-1">
          <SizePanel
            own={{ width: 1440, height: 900 }}
            size={rules.size}
            onChange={(size) => onChange({ size })}
          />
          <NumberInput
            label="At most, KB"
            empty
            value={(rules.maxBytes ?? 0) / 1000}
            min={0}
            max={100_000}
            onCommit={(kb) => onChange({ maxBytes: kb > 0 ? Math.round(kb * 1000) : null })}
          />
          <FactsRule rules={rules} onChange={onChange} />
          <Row label="Look">
            <LookChoice
              className={fieldLook}
              value={rules.look}
              none="As each shot is"
              onChange={(look) => onChange({ look })}
            />
          </Row>
        </div>
      </div>
      <Row label="Name pattern" error={errors.pattern}>
        <input
          className={`${fieldLook} font-measure text-[13px]`}
          aria-invalid={!!errors.pattern}
          spellCheck={false}
          value={rules.pattern}
          onChange={(event) => onChange({ pattern: event.target.value })}
        />
      </Row>
      <Example pattern={rules.pattern} extension={facts?.extension ?? rules.format} />
      <PatternHelp />
    </>
  );
}

function FactsRule({ rules: { facts }, onChange }: Pick<Props, 'rules' | 'onChange'>) {
  const box = (name: 'words' | 'origin', label: string) => (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-petrol"
        checked={facts[name]}
        onChange={(event) => onChange({ facts: { ...facts, [name]: event.target.checked } })}
      />
      {label}
    </label>
  );
  return (
    <>
      {box('words', 'Title, description and time are written into the file')}
      {box('origin', 'So are the address and the window’s title')}
    </>
  );
}

const shown = {
  title: 'Seed order slip',
  window: 'Seed exchange – order',
  takenAt: '2026-11-23T14:02:11Z',
  width: 1440,
  height: 900,
  number: 7,
};

function Example({ pattern, extension }: { pattern: string; extension: string }) {
  if (patternProblem(pattern)) return null;
  const facts = { ...shown, timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone };
  const folders = pathFrom(pattern, facts).length > 1 ? ', in subfolders' : '';
  return (
    <p className="-mt-2 text-[13px] text-soft">
      gives, for example,{' '}
      <span className="font-measure break-all">{`${nameFrom(pattern, facts)}.${extension}`}</span>
      {folders}
    </p>
  );
}
