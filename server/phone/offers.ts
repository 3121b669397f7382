import { randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import type { PhoneOffer } from '@/core/contracts/phone';
import { Fault, notFound } from '../base/fault';
import { openBase } from '../links/base';
import { shared } from '../base/shared';

/** 128 bits, so that nobody finds an address by trying. */
const TOKEN_BYTES = 16;
const MINUTE = 60_000;
export const LASTS = 10 * MINUTE;
/** So long it is still told what became of an address, rather than that there is none. */
const REMEMBERED = 60 * MINUTE;

interface Offer {
  id: string;
  token: string;
  endsAt: number;
  state: PhoneOffer['state'];
  problem: string | null;
  shot: string | null;
}

const held = shared<{ offers: Offer[] }>('phone', () => ({ offers: [] }));

function offers(now: number): Offer[] {
  const known = held.offers.filter((one) => now < one.endsAt + REMEMBERED);
  held.offers = known;
  return known;
}

/** The state at a moment: one that still waits ends by itself. */
const stateAt = ({ state, endsAt }: Offer, now: number): Offer['state'] =>
  state === 'waiting' && now >= endsAt ? 'ended' : state;

function told(offer: Offer, now: number): PhoneOffer {
  const { id, token, endsAt, problem, shot } = offer;
  return {
    ...{ id, problem, shot },
    address: `${openBase() ?? ''}/p/${token}`,
    endsAt: new Date(endsAt).toISOString(),
    state: stateAt(offer, now),
  };
}

/** A new address, in place of any that still waits. @throws Fault 409 while the second door is closed */
export function makeOffer(now = Date.now()): PhoneOffer {
  if (!openBase()) {
    throw new Fault(
      409,
      'door-closed',
      'The second door is closed. Open it in Setup › Sending, so that a phone can come in.',
    );
  }
  for (const one of offers(now)) if (one.state === 'waiting') one.state = 'ended';
  const offer: Offer = {
    id: randomUUID(),
    token: randomBytes(TOKEN_BYTES).toString('base64url'),
    endsAt: now + LASTS,
    state: 'waiting',
    problem: null,
    shot: null,
  };
  held.offers = [...offers(now), offer];
  return told(offer, now);
}

/** The address made last; null where none is known any more. */
export function lastOffer(now = Date.now()): PhoneOffer | null {
  const last = offers(now).at(-1);
  return last ? told(last, now) : null;
}

/** No picture is let in by it any more; one that is arriving still does. @throws Fault 404 */
export function withdrawOffer(id: string, now = Date.now()): void {
  const offer = offers(now).find((one) => one.id === id);
  if (!offer) throw notFound('address for a phone');
  if (offer.state === 'waiting') offer.state = 'ended';
}

const same = (a: string, b: string): boolean =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

const find = (token: string, now: number): Offer | undefined =>
  offers(now).find((one) => same(one.token, token));

const refusals: Record<Exclude<Offer['state'], 'waiting'>, [number, string, string]> = {
  arrived: [410, 'used', 'A picture was sent by this address already. Make another one.'],
  ended: [410, 'ended', 'This address has ended. Make another one on the computer.'],
  arriving: [409, 'busy', 'A picture is being sent by this address just now.'],
};

/** Why a phone cannot send by an address now, in words; null where it can. */
export function whyNot(token: string, now = Date.now()): Fault | null {
  const offer = find(token, now);
  if (!offer) return new Fault(404, 'not-found', 'There is nothing at this address.');
  const state = stateAt(offer, now);
  return state === 'waiting' ? null : new Fault(...refusals[state]);
}

/**
 * Lets one picture in by an address: what `store` stores. Where that fails, or the phone leaves in the
 * middle, the address is good for another try.
 * @throws Fault as `whyNot`, and what `store` throws
 */
export async function letIn(token: string, store: () => Promise<string>): Promise<string> {
  const refused = whyNot(token);
  const offer = find(token, Date.now());
  if (refused || !offer) throw refused ?? notFound('address for a phone');
  offer.state = 'arriving';
  try {
    offer.shot = await store();
    offer.state = 'arrived';
    offer.problem = null;
    return offer.shot;
  } catch (error) {
    offer.state = 'waiting';
    offer.problem = error instanceof Fault ? error.message : 'The picture could not be stored.';
    throw error;
  }
}
