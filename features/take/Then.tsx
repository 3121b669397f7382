import { CircleHelp, type LucideIcon } from 'lucide-react';
import { seriesSteps } from '@/core/contracts/series';
import { sameStep, type ThenStep } from '@/core/places/registry';
import { followLink } from '../thread/navigate';
import { chosenLook, classes } from '../ui/classes';
import { Item, Row } from '../ui/Row';
import { Leaves } from './Leaves';
import { changeWay, useSettings } from '../settings/settingsStore';
import { useOffers, type Offer } from './offers';

interface StepsProps {
  then: readonly ThenStep[];
  ask: boolean;
  /** Nobody is there: nothing is asked, shown, or put on the clipboard. */
  unattended?: boolean;
  onChange: (change: { then?: ThenStep[]; ask?: boolean }) => void;
}

/** What happens with a shot after it was taken; several show the order they were put on in. */
export function ThenSteps({ then, ask, unattended = false, onChange }: StepsProps) {
  const { always, usual, places } = useOffers();
  const isOn = ({ step }: Offer) => then.some((s) => sameStep(s, step));
  const [copy, mark, ...others] = always;
  const further = others.filter(({ step }) => !unattended || seriesSteps.has(step.do));
  const first = [...(unattended ? [] : [copy, mark]), usual].filter(
    (one) => one !== undefined && one !== null,
  );
  const offers = [...first, ...places.filter(isOn), ...further];
  const more = places.filter(
    (place) => !isOn(place) && (!unattended || seriesSteps.has(place.step.do)),
  );
  const toggle = (step: ThenStep) => {
    const on = then.some((s) => sameStep(s, step));
    onChange({ then: on ? then.filter((s) => !sameStep(s, step)) : [...then, step], ask: false });
  };
  return (
    <>
      <Row label="Then" className="flex flex-wrap gap-1.5">
        {offers.map(({ step, label, icon }) => {
          const place = then.findIndex((s) => sameStep(s, step));
          return (
            <Choice
              key={JSON.stringify(step)}
              label={label}
              icon={icon}
              on={!ask && place >= 0}
              order={!ask && then.length > 1 && place >= 0 ? place + 1 : undefined}
              onChange={() => toggle(step)}
            />
          );
        })}
        {more.length > 0 && (
          <select
            aria-label="Another place"
            value=""
            onChange={(event) => {
              const place = more.find(({ step }) => JSON.stringify(step) === event.target.value);
              if (place) toggle(place.step);
            }}
            className="h-7 max-w-[150px] rounded-full border border-edge bg-card px-2 text-[13px]"
          >
            <option value="">Another place …</option>
            {more.map(({ step, label }) => (
              <option key={JSON.stringify(step)} value={JSON.stringify(step)}>
                {label}
              </option>
            ))}
          </select>
        )}
        {!unattended && (
          <Choice
            label="Ask me"
            icon={CircleHelp}
            on={ask}
            onChange={() => onChange({ ask: !ask })}
          />
        )}
      </Row>
      {usual === null && (
        <p className="mt-2 text-[13px] text-soft">
          <a href="/setup/folders" onClick={followLink} className="text-petrol underline">
            Set up a folder
          </a>{' '}
          to keep copies in it straight away.
        </p>
      )}
    </>
  );
}

export function Then() {
  const { then, ask, size, format, look } = useSettings((s) => s.settings.way);
  return (
    <section className="py-3">
      <h2 className="mb-2 font-bold">Then</h2>
      <ThenSteps then={then} ask={ask} onChange={changeWay} />
      <details className="mt-2" open={size !== null || format !== null || look !== null}>
        <summary className="text-[13px] text-soft">Size, look and format</summary>
        <Leaves size={size} format={format} look={look} onChange={changeWay} />
      </details>
    </section>
  );
}

interface ChoiceProps {
  label: string;
  on: boolean;
  order?: number;
  icon: LucideIcon;
  onChange: () => void;
}

function Choice({ label, on, order, icon: Icon, onChange }: ChoiceProps) {
  return (
    <Item>
      <button
        type="button"
        aria-pressed={on}
        onClick={onChange}
        className={classes(
          'inline-flex h-7 max-w-full items-center gap-1.5 rounded-full border px-2.5',
          chosenLook(on),
        )}
      >
        <Icon size={16} strokeWidth={1.75} aria-hidden />
        <span className="truncate">{label}</span>
        {order && (
          <span aria-hidden className="font-measure text-[11px]">
            {order}
          </span>
        )}
      </button>
    </Item>
  );
}
