import { chosenKind, stillKinds, type StillKind } from '@/core/contracts/way';
import { changeWay, useSettings } from '../settings/settingsStore';
import { followLink } from '../thread/navigate';
import { ChipRadios } from '../ui/ChipRadios';
import { NumberInput } from '../ui/NumberInput';
import { Toggle } from '../ui/Toggle';
import { HoldToggle } from './back/HoldToggle';
import { recordsLabels } from './kinds';

/** What else there is to say of the kind that is chosen. */
export function KindOptions() {
  const kind = useSettings((s) => s.settings.way.kind);
  if (kind === 'series') {
    return (
      <p className="mt-1 px-3 text-[13px] text-soft">
        <a href="/series" onClick={followLink} className="text-petrol underline">
          All series
        </a>{' '}
        and what they took
      </p>
    );
  }
  if (kind === 'back') {
    return (
      <div className="mt-1 px-3">
        <HoldToggle />
      </div>
    );
  }
  return (
    <>
      {kind === 'clip' && <Records />}
      <ChoiceOptions />
    </>
  );
}

const records = stillKinds.map((value) => ({ value, label: recordsLabels[value] }));

const recordsNotes: Partial<Record<StillKind, string>> = {
  window: 'The place where it is now; it is not followed when it moves.',
};
const NOTE = 'All of the display is recorded: Crop in Mark shows more of it later.';

/** Of a clip: what of the source is shown of it. */
function Records() {
  const value = useSettings((s) => s.settings.way.records);
  return (
    <div className="mt-1 px-3">
      <ChipRadios
        words
        label="What of it"
        value={value}
        options={records}
        onChange={(to) => changeWay({ records: to })}
      />
      {value !== 'full' && (
        <p className="mt-1 text-[13px] text-soft">{recordsNotes[value] ?? NOTE}</p>
      )}
    </div>
  );
}

/** How a window, a region or a free shape is chosen. */
function ChoiceOptions() {
  const kind = useSettings((s) => chosenKind(s.settings.way));
  const { inUse, border, margin, atOnce, fromLast } = useSettings((s) => s.settings.way);
  if (kind === 'window') {
    return (
      <div className="mt-1 px-3">
        <Toggle
          label="The one in use, at once"
          checked={inUse}
          onChange={(on) => changeWay({ inUse: on })}
        />
        <Toggle
          label="With its border"
          checked={border}
          onChange={(on) => changeWay({ border: on })}
        />
        <NumberInput
          label="Margin"
          value={margin}
          min={0}
          max={100}
          onCommit={(value) => changeWay({ margin: Math.round(value) })}
        />
      </div>
    );
  }
  if (kind !== 'region' && kind !== 'shape') return null;
  return (
    <div className="mt-1 px-3">
      <Toggle
        label="Letting go takes at once"
        checked={atOnce}
        onChange={(on) => changeWay({ atOnce: on })}
      />
      {kind === 'region' && (
        <Toggle
          label="Begins with the last place"
          checked={fromLast}
          onChange={(on) => changeWay({ fromLast: on })}
        />
      )}
    </div>
  );
}
