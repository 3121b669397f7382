import { chosenKind, stillKinds, type Way } from '@/core/contracts/way';
import { changeWay, useSettings } from '../settings/settingsStore';
import { followLink } from '../thread/navigate';
import { ChipRadios } from '../ui/ChipRadios';
import { NumberInput } from '../ui/NumberInput';
import { Toggle } from '../ui/Toggle';
import { HoldToggle } from './back/HoldToggle';
import { HandShown } from './clip/HandShown';
import { Sounds } from './clip/Sounds';
import { recordsLabels } from './kinds';
import type { Abilities } from './sources/contract';
import { sources } from './sources/list';

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
      {kind === 'clip' && <ClipOptions />}
      <ChoiceOptions />
    </>
  );
}

/** What of a source a clip may show; why it cannot show a window, where that is so. */
const recordsOf = ({ windows }: Abilities) =>
  stillKinds.map((value) => ({
    ...{ value, label: recordsLabels[value] },
    ...(value === 'window' && windows !== true && { not: windows }),
  }));

const NOTE = 'All of the display is recorded: Crop in Mark shows more of it later.';
const FOLLOWED =
  'It is followed when it is moved; what lies over it is seen. All of the display is recorded.';
const NOT_FOLLOWED =
  'The place where it is now: of what is shared it is not known where a window is moved to.';

function noteOf({ records, source }: Pick<Way, 'records' | 'source'>): string {
  if (records !== 'window') return NOTE;
  return sources[source].can.follows ? FOLLOWED : NOT_FOLLOWED;
}

/** Of a clip: what of the source is shown of it, what is heard, and what is shown of a hand. */
function ClipOptions() {
  const { records: value, source, sounds, pressed } = useSettings((s) => s.settings.way);
  return (
    <div className="mt-1 px-3">
      <ChipRadios
        words
        label="What of it"
        value={value}
        options={recordsOf(sources[source].can)}
        onChange={(to) => changeWay({ records: to })}
      />
      {value !== 'full' && (
        <p className="mt-1 text-[13px] text-soft">{noteOf({ records: value, source })}</p>
      )}
      <div className="mt-2">
        <Sounds {...{ source, sounds }} onChange={changeWay} />
        <HandShown {...{ source, pressed }} onChange={changeWay} />
      </div>
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
