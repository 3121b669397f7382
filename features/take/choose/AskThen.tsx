import { useCallback, useMemo, useState } from 'react';
import { sameStep, type ThenStep } from '@/core/places/registry';
import { Button } from '../../ui/Button';
import { chosenLook, classes } from '../../ui/classes';
import { Key } from '../../ui/Key';
import { Item, Row } from '../../ui/Row';
import { useOffers, type Offer } from '../offers';
import { useTake, type Choosing } from '../takeState';
import { confirmTake } from '../takeStore';
import { Footer } from './Footer';
import { Outline } from './Outline';
import { StillPicture } from './StillPicture';
import { useEveryKey } from '../../keys/useKey';

interface KeyedOffer extends Offer {
  key: string;
}

/** The letters of what needs no place; places are counted. */
const letters: Partial<Record<ThenStep['do'], string>> = {
  copy: 'C',
  mark: 'M',
  keepAsk: 'K',
  link: 'L',
  mail: 'E',
  print: 'P',
};

/** What to do with the chosen part, for once: one key each, several at will, Enter. */
export function AskThen({ choosing }: { choosing: Choosing }) {
  const { always, usual, places } = useOffers();
  const [steps, setSteps] = useState<readonly ThenStep[]>([]);
  const { chosen, stilled } = choosing;
  const offers = useMemo<KeyedOffer[]>(() => {
    const counted = [...(usual ? [usual] : []), ...places].slice(0, 9);
    return [
      ...always.map((offer) => ({ ...offer, key: letters[offer.step.do] ?? '' })),
      ...counted.map((offer, i) => ({ ...offer, key: String(i + 1) })),
    ];
  }, [always, usual, places]);
  const toggle = useCallback((step: ThenStep) => {
    const same = (other: ThenStep) => sameStep(other, step);
    setSteps((all) => (all.some(same) ? all.filter((s) => !same(s)) : [...all, step]));
  }, []);
  const take = useCallback(() => {
    if (chosen) void confirmTake(choosing, chosen, steps);
  }, [choosing, chosen, steps]);
  useEveryKey(
    useCallback(
      (event) => {
        const offer = offers.find((o) => o.key === event.key.toUpperCase());
        if (offer && !event.ctrlKey && !event.metaKey) toggle(offer.step);
        else if (event.key === 'Enter') take();
        else return false;
        return true;
      },
      [offers, toggle, take],
    ),
  );
  if (!chosen) return null;
  const isOn = (step: ThenStep) => steps.some((s) => sameStep(s, step));
  return (
    <>
      <StillPicture
        picture={stilled.picture}
        pixelView={false}
        cursor={() => 'default'}
        overlay={(scale) => <Outline region={chosen.crop} frame={stilled.picture} scale={scale} />}
      />
      <Row label="Then" className="mt-3 flex flex-wrap gap-2">
        {offers.map(({ key, label, step, icon: Icon }) => (
          <Item key={key}>
            <button
              type="button"
              aria-pressed={isOn(step)}
              aria-keyshortcuts={key}
              onClick={() => toggle(step)}
              className={classes(
                'inline-flex h-9 items-center gap-2 rounded-[7px] border px-3',
                chosenLook(isOn(step)),
              )}
            >
              <Icon size={16} strokeWidth={1.75} aria-hidden />
              {label}
              <Key>{key}</Key>
            </button>
          </Item>
        ))}
      </Row>
      <Footer take={steps.length === 0 ? 'To the Shelf only' : 'Take it'} onTake={take}>
        <Button onClick={() => useTake.setState({ phase: { ...choosing, chosen: undefined } })}>
          Choose another part
        </Button>
      </Footer>
    </>
  );
}
