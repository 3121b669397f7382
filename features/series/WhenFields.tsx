import { week } from '@/core/series/words';
import { ChipRadios } from '../ui/ChipRadios';
import { chosenLook, classes } from '../ui/classes';
import { FormRow, fieldLook } from '../ui/FormRow';
import { NumberInput } from '../ui/NumberInput';
import { Item, Row } from '../ui/Row';
import { Toggle } from '../ui/Toggle';
import type { Draft } from './draft';

interface Props {
  draft: Draft;
  onChange: (change: Partial<Draft>) => void;
}

const hows: { value: Draft['how']; label: string }[] = [
  { value: 'every', label: 'Again and again' },
  { value: 'at', label: 'At set times' },
];
const units = [
  { value: '1', label: 'seconds' },
  { value: '60', label: 'minutes' },
  { value: '3600', label: 'hours' },
];
const office = { from: '08:00', until: '17:00' };

/** When a series takes. */
export function WhenFields({ draft, onChange }: Props) {
  const { how, at, days, begins, ends } = draft;
  return (
    <>
      <div className="grid grid-cols-[110px_1fr] items-center gap-2">
        <span className="font-bold">How</span>
        <ChipRadios
          words
          label="How often"
          value={how}
          options={hows}
          onChange={(chosen) => onChange({ how: chosen })}
        />
      </div>
      {how === 'every' ? (
        <EveryFields draft={draft} onChange={onChange} />
      ) : (
        <FormRow label="Times">
          <input
            value={at}
            placeholder="09:00, 13:30"
            onChange={(event) => onChange({ at: event.target.value })}
            className={fieldLook}
          />
        </FormRow>
      )}
      <div className="grid grid-cols-[110px_1fr] items-center gap-2">
        <span className="font-bold">Days</span>
        <Row label="Days" className="flex flex-wrap gap-1.5">
          {week.map(({ day, name }) => (
            <Item key={day}>
              <button
                type="button"
                aria-pressed={days.includes(day)}
                onClick={() =>
                  onChange({
                    days: days.includes(day) ? days.filter((d) => d !== day) : [...days, day],
                  })
                }
                className={classes(
                  'h-7 rounded-full border px-2.5',
                  chosenLook(days.includes(day)),
                )}
              >
                {name}
              </button>
            </Item>
          ))}
        </Row>
      </div>
      <Moment
        label="From"
        note="at once"
        value={begins}
        onChange={(m) => onChange({ begins: m })}
      />
      <Moment
        label="Until"
        note="you end it"
        value={ends}
        onChange={(m) => onChange({ ends: m })}
      />
    </>
  );
}

function EveryFields({ draft: { count, unit, between }, onChange }: Props) {
  const time = (side: 'from' | 'until', label: string) => (
    <label className="flex items-center gap-2">
      {label}
      <input
        type="time"
        value={between?.[side] ?? ''}
        onChange={(event) =>
          event.target.value &&
          onChange({ between: { ...(between ?? office), [side]: event.target.value.slice(0, 5) } })
        }
        className={classes(fieldLook, '!w-auto')}
      />
    </label>
  );
  return (
    <>
      <div className="ml-[118px] flex items-center gap-3">
        <NumberInput
          label="Every"
          value={count}
          min={1}
          max={100_000}
          onCommit={(value) => onChange({ count: Math.round(value) })}
        />
        <ChipRadios
          words
          label="Unit"
          value={String(unit)}
          options={units}
          onChange={(value) => onChange({ unit: Number(value) })}
        />
      </div>
      <div className="ml-[118px]">
        <Toggle
          label="Only at a time of the day"
          note="Counted anew from its beginning, each day"
          checked={between !== null}
          onChange={(on) => onChange({ between: on ? office : null })}
        />
        {between && (
          <div className="flex gap-4">
            {time('from', 'from')}
            {time('until', 'until')}
          </div>
        )}
      </div>
    </>
  );
}

/** A day and a time, or none. */
function Moment(props: {
  label: string;
  /** What it means where there is none. */
  note: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const { label, note, value, onChange } = props;
  return (
    <FormRow label={label}>
      <span className="flex items-center gap-3">
        <input
          type="datetime-local"
          value={value}
          onChange={(event) => onChange(event.target.value)}
          className={classes(fieldLook, '!w-auto')}
        />
        {value === '' && <span className="text-[13px] text-soft">empty: {note}</span>}
      </span>
    </FormRow>
  );
}
