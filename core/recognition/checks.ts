/**
 * The check that card numbers pass: every second digit from the right doubled, its digits added,
 * the sum a multiple of ten (ISO/IEC 7812-1, annex B).
 * @param digits 0–9 only
 */
export function passesMod10(digits: string): boolean {
  if (!/^\d+$/.test(digits)) return false;
  let sum = 0;
  [...digits].reverse().forEach((digit, i) => {
    const value = Number(digit) * (i % 2 === 1 ? 2 : 1);
    sum += value > 9 ? value - 9 : value;
  });
  return sum % 10 === 0;
}

/**
 * The check that account numbers pass: the first four characters moved to the end, letters as
 * numbers from A = 10, the whole leaving 1 when divided by 97 (ISO 13616, ISO 7064 MOD 97-10).
 * @param iban capital letters and digits only
 */
export function passesMod97(iban: string): boolean {
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(iban)) return false;
  let rest = 0;
  for (const c of iban.slice(4) + iban.slice(0, 4)) {
    const value = /\d/.test(c) ? c : String(c.charCodeAt(0) - 55);
    for (const digit of value) rest = (rest * 10 + Number(digit)) % 97;
  }
  return rest === 1;
}
