import { expect, test } from '@jest/globals';
import { freeNumber, joinedSetups } from './avcSetup';

const bytes = (hex: string): Uint8Array => new Uint8Array(Buffer.from(hex, 'hex'));
const hexOf = (some: Uint8Array | null): string | null => some && Buffer.from(some).toString('hex');

/** As x264 writes them: of sets with the number 0 and 31. */
const sps0 = '6742c00ada0a3684000003000400000300783c489a80';
const pps0 = '68ce023c80';
const sps31 = '6742c00a0416828da10000030001000007d00f1226a0';
const pps31 = '68040080e03bc8';
const setup0 = bytes(`0142c00affe10016${sps0}010005${pps0}`);
const setup31 = bytes(`0142c00affe10016${sps31}010007${pps31}`);

test('a number is taken that no set has', () => {
  expect(freeNumber(setup0)).toBe(31);
  expect(freeNumber(setup31)).toBe(30);
});

test('sets of two films stand side by side, each once', () => {
  const both = `0142c00affe20016${sps0}0016${sps31}020005${pps0}0007${pps31}`;
  expect(hexOf(joinedSetups([setup0, setup31]))).toBe(both);
  expect(hexOf(joinedSetups([setup0, setup31, setup31, setup0]))).toBe(both);
});

test('the higher level is said, and what finer profiles say at the end', () => {
  const high = bytes(`0164000affe10016${sps0}010005${pps0}fdf8f800`);
  const above = setup31.slice();
  above[3] = 40;
  const joined = joinedSetups([high, above]);
  expect(joined?.slice(0, 5)).toEqual(bytes('01640028ff'));
  expect(joined?.slice(-4)).toEqual(bytes('fdf8f800'));
});

test('what cannot stand together is not joined', () => {
  const other = setup0.slice();
  // Of the same number, and not the same.
  other[10] = 0xc1;
  expect(joinedSetups([setup0, other])).toBeNull();
  // Lengths in two bytes.
  const short = setup31.slice();
  short[4] = 0xfd;
  expect(joinedSetups([setup0, short])).toBeNull();
});

test('what ends too soon, or is none, is not read', () => {
  for (let length = 0; length < setup0.length; length += 1) {
    expect(freeNumber(setup0.subarray(0, length))).toBeNull();
    expect(joinedSetups([setup31, setup0.subarray(0, length)])).toBeNull();
  }
  expect(freeNumber(bytes('0142c00affe1'))).toBeNull();
});
