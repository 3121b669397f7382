import {
  chosenKind,
  stillKinds,
  takenFrom,
  type Kind,
  type StillKind,
  type TakenFrom,
  type Way,
} from '@/core/contracts/way';
import { limits } from '@/core/values/limits';
import { HandShown } from '../take/clip/HandShown';
import { Sounds } from '../take/clip/Sounds';
import { kinds, recordsLabels } from '../take/kinds';
import { Leaves } from '../take/Leaves';
import { sources } from '../take/sources/list';
import { ThenSteps } from '../take/Then';
import { withTags } from '../take/withTags';
import { TagsField } from '../tags/TagsField';
import { FormRow, fieldLook } from '../ui/FormRow';
import { NumberInput } from '../ui/NumberInput';
import { Toggle } from '../ui/Toggle';

interface Props {
  way: Way;
  change: (patch: Partial<Way>) => void;
}

/** Everything that a routine takes by. */
export function RoutineWay({ way, change }: Props) {
  const isClip = way.kind === 'clip';
  return (
    <>
      <FormRow label="What">
        <select
          value={way.kind}
          onChange={(event) => change({ kind: event.target.value as Kind })}
          className={fieldLook}
        >
          {kinds
            .filter(({ name }) => name !== 'series')
            .map((k) => (
              <option key={k.name} value={k.name}>
                {k.label}
              </option>
            ))}
        </select>
      </FormRow>
      <FormRow label="From where">
        <select
          value={way.source}
          onChange={(event) =>
            change({ source: event.target.value as TakenFrom, display: 'current' })
          }
          className={fieldLook}
        >
          {takenFrom.map((source) => (
            <option key={source} value={source}>
              {sources[source].label}
            </option>
          ))}
        </select>
      </FormRow>
      {way.source === 'web' && (
        <FormRow label="Address">
          <input
            value={way.page.address}
            inputMode="url"
            spellCheck={false}
            onChange={(event) => change({ page: { ...way.page, address: event.target.value } })}
            className={fieldLook}
          />
        </FormRow>
      )}
      {isClip && (
        <FormRow label="What of it">
          <select
            value={way.records}
            onChange={(event) => change({ records: event.target.value as StillKind })}
            className={fieldLook}
          >
            {stillKinds.map((name) => (
              <option key={name} value={name}>
                {recordsLabels[name]}
              </option>
            ))}
          </select>
        </FormRow>
      )}
      <Chosen {...{ way, change }} />
      {isClip && <Sounds {...way} onChange={change} />}
      {isClip && <HandShown {...way} onChange={change} />}
      <NumberInput
        label="Delay in seconds"
        value={way.delay}
        min={0}
        max={limits.delay}
        onCommit={(delay) => change({ delay })}
      />
      <Toggle
        label={isClip ? 'Pointer' : 'Pointer as a piece'}
        checked={way.pointer}
        onChange={(pointer) => change({ pointer })}
      />
      {/* A clip opens in a view of its own. */}
      {!isClip && <ThenOfIt {...{ way, change }} />}
    </>
  );
}

/** What of it, where that is chosen. */
function Chosen({ way, change }: Props) {
  const displays = sources[way.source].displays();
  const chosen = chosenKind(way);
  return (
    <>
      {displays.length > 1 && chosen !== 'window' && (
        <FormRow label="Display">
          <select
            value={way.display}
            onChange={(event) => change({ display: event.target.value })}
            className={fieldLook}
          >
            <option value="current">The one in use</option>
            {displays.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </FormRow>
      )}
      {chosen === 'window' && (
        <>
          <Toggle
            label="The one in use, at once"
            checked={way.inUse}
            onChange={(inUse) => change({ inUse })}
          />
          <Toggle
            label="With its border"
            checked={way.border}
            onChange={(border) => change({ border })}
          />
        </>
      )}
      {(chosen === 'region' || chosen === 'shape') && (
        <Toggle
          label="Letting go takes at once"
          checked={way.atOnce}
          onChange={(atOnce) => change({ atOnce })}
        />
      )}
      {chosen === 'region' && (
        <Toggle
          label="Begins with the last place"
          checked={way.fromLast}
          onChange={(fromLast) => change({ fromLast })}
        />
      )}
    </>
  );
}

/** What becomes of it. */
function ThenOfIt({ way, change }: Props) {
  return (
    <div>
      <h3 className="mb-1.5 font-bold">Then</h3>
      <ThenSteps then={way.then} ask={way.ask} onChange={change} />
      <div className="mt-2 flex items-center gap-3">
        <span className="shrink-0">Tags it gets</span>
        <TagsField
          label="Tags it gets"
          names={way.then.find((step) => step.do === 'tag')?.tags ?? []}
          onChange={(tags) => change({ then: withTags(way.then, tags) })}
        />
      </div>
      <Leaves {...way} onChange={change} />
    </div>
  );
}
