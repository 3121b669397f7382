import { isOfPage, seriesKinds, seriesSources } from '@/core/contracts/series';
import { kindLabels } from '@/core/contracts/way';
import type { Rect } from '@/core/geometry/rect';
import { sources } from '../take/sources/list';
import { ChipRadios } from '../ui/ChipRadios';
import { FormRow, fieldLook } from '../ui/FormRow';
import { NumberInput } from '../ui/NumberInput';
import { Toggle } from '../ui/Toggle';
import type { Draft } from './draft';

interface Props {
  draft: Draft;
  onChange: (change: Partial<Draft>) => void;
}

const kinds = seriesKinds.map((value) => ({ value, label: kindLabels[value] }));
const sides: { side: keyof Rect; label: string; least: number }[] = [
  { side: 'x', label: 'Left', least: -100_000 },
  { side: 'y', label: 'Top', least: -100_000 },
  { side: 'width', label: 'Width', least: 1 },
  { side: 'height', label: 'Height', least: 1 },
];

/** What a series takes, and from where. */
export function WhatFields({ draft, onChange }: Props) {
  const { source } = draft;
  return (
    <>
      <FormRow label="From where">
        <select
          value={source}
          onChange={(event) => {
            const chosen = seriesSources.find((name) => name === event.target.value);
            if (chosen) onChange({ source: chosen, display: 'all', kind: 'full' });
          }}
          className={fieldLook}
        >
          {seriesSources.map((name) => (
            <option key={name} value={name}>
              {sources[name].label}
            </option>
          ))}
        </select>
      </FormRow>
      {source === 'web' ? (
        <PageFields draft={draft} onChange={onChange} />
      ) : (
        <ScreenFields draft={draft} onChange={onChange} />
      )}
    </>
  );
}

function PageFields({ draft: { page }, onChange }: Props) {
  return (
    <>
      <FormRow label="Address">
        <input
          value={page.address}
          inputMode="url"
          spellCheck={false}
          onChange={(event) => onChange({ page: { ...page, address: event.target.value } })}
          className={fieldLook}
        />
      </FormRow>
      <Toggle
        label="Its whole length"
        note="Else what fits on a first screen"
        checked={page.whole}
        onChange={(whole) => onChange({ page: { ...page, whole } })}
      />
    </>
  );
}

function ScreenFields({ draft, onChange }: Props) {
  const { source, kind, display, window, region } = draft;
  const displays = sources[source].displays();
  const ofPage = isOfPage(source);
  return (
    <>
      <div className="grid grid-cols-[110px_1fr] items-center gap-2">
        <span className="font-bold">What</span>
        <ChipRadios
          words
          label="What is taken"
          value={kind}
          options={ofPage ? kinds.filter(({ value }) => value !== 'window') : kinds}
          onChange={(chosen) => onChange({ kind: chosen })}
        />
      </div>
      {ofPage && (
        <p className="text-[13px] text-soft">
          It is taken by a tab of Rezzik that has it, in sight or not. While there is none, its
          times are missed, and that is told.
        </p>
      )}
      {kind === 'full' && displays.length > 1 && (
        <FormRow label="Display">
          <select
            value={display}
            onChange={(event) => onChange({ display: event.target.value })}
            className={fieldLook}
          >
            {displays.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </FormRow>
      )}
      {kind === 'window' && (
        <FormRow label="Its title has">
          <input
            value={window}
            maxLength={300}
            placeholder="the window in use, if this stays empty"
            onChange={(event) => onChange({ window: event.target.value })}
            className={fieldLook}
          />
        </FormRow>
      )}
      {kind === 'region' && (
        <div className="ml-[118px] grid grid-cols-2 gap-x-4">
          {sides.map(({ side, label, least }) => (
            <NumberInput
              key={side}
              label={label}
              value={region[side]}
              min={least}
              max={100_000}
              onCommit={(value) => onChange({ region: { ...region, [side]: Math.round(value) } })}
            />
          ))}
          <p className="col-span-2 text-[13px] text-soft">
            The region you took last from there stands here at first.
          </p>
        </div>
      )}
    </>
  );
}
