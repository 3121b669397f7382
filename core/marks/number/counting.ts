import type { Counting } from '../names';

const ROMAN: readonly (readonly [number, string])[] = [
  [1000, 'M'],
  [900, 'CM'],
  [500, 'D'],
  [400, 'CD'],
  [100, 'C'],
  [90, 'XC'],
  [50, 'L'],
  [40, 'XL'],
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
];

/** A number as it is written: 28 → 28, AB or XXVIII. What cannot be written so stays a number. */
export function written(value: number, counting: Counting): string {
  if (value < 1 || counting === 'numbers') return String(value);
  if (counting === 'letters') {
    let letters = '';
    for (let n = value; n > 0; n = Math.floor((n - 1) / 26)) {
      letters = String.fromCharCode(65 + ((n - 1) % 26)) + letters;
    }
    return letters;
  }
  if (value > 3999) return String(value);
  let rest = value;
  return ROMAN.reduce((words, [worth, sign]) => {
    const times = Math.floor(rest / worth);
    rest -= times * worth;
    return words + sign.repeat(times);
  }, '');
}

/**
 * The numbers of a shot, in the order of their marks, counting on from where the first one starts, so
 * that a removed one leaves no gap; null when every value is right already.
 */
export function countedOn<M extends { value: number; first: number }>(
  numbers: readonly M[],
): readonly M[] | null {
  const first = numbers[0]?.first ?? 1;
  if (numbers.every((mark, i) => mark.value === first + i)) return null;
  return numbers.map((mark, i) =>
    mark.value === first + i && mark.first === first ? mark : { ...mark, value: first + i, first },
  );
}
