import type { ReactNode } from 'react';
import { ThenSteps } from '../take/Then';
import { withTags } from '../take/withTags';
import { TagsField } from '../tags/TagsField';
import { FormRow, fieldLook } from '../ui/FormRow';
import { NumberInput } from '../ui/NumberInput';
import { Toggle } from '../ui/Toggle';
import type { Draft } from './draft';
import { WhatFields } from './WhatFields';
import { WhenFields } from './WhenFields';

interface Props {
  draft: Draft;
  onChange: (change: Partial<Draft>) => void;
}

/** Everything that is said of a series. */
export function SeriesForm({ draft, onChange }: Props) {
  const { name, onlyChanged } = draft;
  return (
    <>
      <Part title="What">
        <FormRow label="Name">
          <input
            value={name}
            maxLength={80}
            autoFocus
            onChange={(event) => onChange({ name: event.target.value })}
            className={fieldLook}
          />
        </FormRow>
        <WhatFields draft={draft} onChange={onChange} />
        <Toggle
          label="Only when it has changed"
          note="Else it is only noted that it looked the same"
          checked={onlyChanged !== null}
          onChange={(on) =>
            onChange({ onlyChanged: on ? { least: 0, watch: null, ignore: [] } : null })
          }
        />
        {onlyChanged && (
          <>
            <NumberInput
              label="By at least, % of the pixels"
              value={onlyChanged.least}
              min={0}
              max={100}
              onCommit={(least) => onChange({ onlyChanged: { ...onlyChanged, least } })}
            />
            <p className="text-[13px] text-soft">
              0 is any pixel. What to watch, and what to ignore, such as a clock, is drawn on its
              first picture once there is one.
            </p>
          </>
        )}
      </Part>
      <Part title="When">
        <WhenFields draft={draft} onChange={onChange} />
      </Part>
      <Part title="Then">
        <AfterFields draft={draft} onChange={onChange} />
      </Part>
    </>
  );
}

function AfterFields({ draft: { then, pattern, stopAt }, onChange }: Props) {
  return (
    <>
      <p className="text-soft">Each shot lies on the Shelf. It can go further by itself:</p>
      <ThenSteps
        unattended
        then={then}
        ask={false}
        onChange={({ then: steps }) => steps && onChange({ then: steps })}
      />
      <div className="flex items-center gap-3">
        <span className="shrink-0 font-bold">Tags</span>
        <TagsField
          label="Tags its shots get"
          names={then.find((step) => step.do === 'tag')?.tags ?? []}
          onChange={(tags) => onChange({ then: withTags(then, tags) })}
        />
      </div>
      <FormRow label="Names">
        <input
          value={pattern}
          onChange={(event) => onChange({ pattern: event.target.value })}
          className={`${fieldLook} font-measure`}
        />
      </FormRow>
      <p className="ml-[118px] text-[13px] text-soft">
        {'{title}'} is the series, {'{n:3}'} the number of the shot in it with three digits; also{' '}
        {'{date} {time} {window} {size}'}.
      </p>
      <div className="grid grid-cols-2 gap-x-6">
        <NumberInput
          label="Ends after shots"
          value={stopAt.shots}
          min={1}
          max={100_000}
          onCommit={(shots) => onChange({ stopAt: { ...stopAt, shots: Math.round(shots) } })}
        />
        <NumberInput
          label="or after MB"
          value={stopAt.megabytes}
          min={1}
          max={1_000_000}
          onCommit={(megabytes) =>
            onChange({ stopAt: { ...stopAt, megabytes: Math.round(megabytes) } })
          }
        />
      </div>
    </>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="rounded-[9px] border border-line bg-card p-4">
      <h2 className="mb-2 font-name text-lg">{title}</h2>
      <div className="flex flex-col gap-2">{children}</div>
    </section>
  );
}
