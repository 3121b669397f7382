import { randomFrom } from '@/core/random/random';
import type { PrivateKind } from '@/core/recognition/kinds';

/** A made-up private thing, as it is written on a screen. */
export interface Thing {
  kind: PrivateKind;
  text: string;
}

const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZabcdefghijkmnopqrstuvwxyz0123456789';
const HEX = '0123456789abcdef';

/** The IBAN of a made-up account: its check digits worked out (ISO 13616, mod 97). */
function iban(country: string, account: string): string {
  const rearranged = `${account}${country}00`;
  const digits = [...rearranged]
    .map((c) => (/\d/.test(c) ? c : String(c.charCodeAt(0) - 55)))
    .join('');
  const check = String(98n - (BigInt(digits) % 97n)).padStart(2, '0');
  return `${country}${check}${account}`.replace(/(.{4})(?=.)/g, '$1 ');
}

/** Card numbers that the payment industry publishes for tests. */
const cards = [
  '4242 4242 4242 4242',
  '5555 5555 5555 4444',
  '4000 0566 5566 5556',
  '6011 1111 1111 1117',
  '3782 822463 10005',
  '4012888888881881',
  '5105-1051-0510-5100',
];
const people = ['wren', 'sorrel', 'rowan', 'tansy.lark', 'fern_warden', 'seeds', 'linnet+beds'];
const houses = ['fernhollow.example', 'garden.fernhollow.example', 'seed-exchange.example'];
/** Numbers and addresses set aside for examples: RFC 5737, RFC 3849, drama and fiction. */
const phones = [
  '+44 1632 960 123',
  '(01632) 960987',
  '+1 202 555 0143',
  '(555) 555-0199',
  '+49 30 23125 014',
  '01632 960 455',
];
const addresses = [
  '192.0.2.17',
  '198.51.100.203',
  '203.0.113.9',
  '2001:db8:85a3::8a2e:370:7334',
  '192.0.2.254',
];

/** Endless made-up private things of every kind, the same for the same seed. */
export function things(seed: number): (kind: PrivateKind) => Thing {
  const next = randomFrom(seed);
  const one = <T>(list: readonly T[]): T => {
    const item = list[Math.floor(next() * list.length)];
    if (item === undefined) throw new Error('an empty list');
    return item;
  };
  const some = (letters: string, count: number) =>
    Array.from({ length: count }, () => letters[Math.floor(next() * letters.length)]).join('');
  const key = (): string =>
    one([
      () => some(HEX, 32),
      () => `fh_${some(LETTERS, 28)}`,
      () => `${some(LETTERS, 40)}`,
      () => `key-${some(HEX, 24)}`,
    ])();
  const digits = (count: number) => some('0123456789', count);
  const made: Record<PrivateKind, () => string> = {
    email: () => `${one(people)}@${one(houses)}`,
    card: () => one(cards),
    phone: () => one(phones),
    iban: () =>
      one([
        () => iban('DE', digits(18)),
        () => iban('GB', `FERN${digits(14)}`),
        () => iban('AT', digits(16)),
      ])(),
    ip: () => one(addresses),
    key,
  };
  return (kind) => ({ kind, text: made[kind]() });
}

/** What looks a little like one of them and is none. */
export const decoys: readonly string[] = [
  'Order SX-48-7713-KA',
  'FH-2031',
  '2026-11-23 14:02:11',
  '23.11.2026',
  'Version 3.14.2',
  '1 204 packets',
  '11.4 °C at 06:40',
  'Bed 12, row 7, label 40',
  '2026-11-23T14:02:11Z',
  '12 345.60',
  'North bank (40 cm)',
  'Ranunculus acris',
  'page 3 of 12',
  '06:00 – 06:40',
  'Sensor 14, code E-207',
  '100 × 250 mm',
];
