/** How numbers are written where the person is. */
export interface Written {
  /** The number that was meant; null where it is none. */
  read: (text: string) => number | null;
  /** At most two decimals, no groups: as it is typed. */
  write: (value: number) => string;
}

/** Marks of direction, and what stands for a hyphen before a negative number. */
const UNSEEN = /[\u200e\u200f\u061c]/g;
const MINUS = /^[\u2212\u2010-\u2013]/;
/** Spaces and apostrophes only ever part groups of three. */
const GROUPED = /(\d)[\s\u00a0\u202f'’](?=\d{3}(?!\d))/g;

/**
 * Reads and writes numbers as a locale has them (Unicode CLDR, by way of Intl). A single dot or comma
 * before three digits is what the locale says: 1.200 is twelve hundred in German, 1,200 in English.
 * Elsewhere either may be the decimal sign, since keyboards offer but one of them.
 * @param locale a BCP 47 tag; the system's own where absent
 * @throws RangeError for a tag that is none
 */
export function numbersOf(locale?: string): Written {
  const format = new Intl.NumberFormat(locale, { useGrouping: false, maximumFractionDigits: 2 });
  const decimal = partOf(new Intl.NumberFormat(locale), 'decimal') === ',' ? ',' : '.';
  const digits = [...new Intl.NumberFormat(locale, { useGrouping: false }).format(9876543210)];
  const plain = (text: string): string =>
    [...text.replace(UNSEEN, '').trim()]
      .map((sign) => {
        const at = digits.indexOf(sign);
        return at < 0 ? sign : String(9 - at);
      })
      .join('')
      .replace(MINUS, '-')
      .replaceAll('\u066b', decimal)
      .replaceAll('\u066c', decimal === ',' ? '.' : ',')
      .replace(GROUPED, '$1');
  return {
    read: (text) => readPlain(plain(text), decimal),
    write: (value) => format.format(value),
  };
}

const partOf = (format: Intl.NumberFormat, type: string): string | undefined =>
  format.formatToParts(1234.5).find((part) => part.type === type)?.value;

/** Groups of three, or of two above the first thousand, as in India. */
const GROUPS = /^[-+]?\d{1,3}(,\d{2,3})*,\d{3}$/;
const NUMBER = /^[-+]?(\d+\.?\d*|\.\d+)$/;

function readPlain(text: string, decimal: '.' | ','): number | null {
  const dotted = withDot(text, decimal);
  return dotted !== null && NUMBER.test(dotted) ? Number(dotted) : null;
}

/** The text with a dot for its decimal sign and without groups; null where the signs make no sense. */
function withDot(text: string, decimal: '.' | ','): string | null {
  const signs = text.replace(/[^.,]/g, '');
  if (signs === '') return text;
  const last = signs.at(-1) ?? '';
  const others = signs.slice(0, -1);
  if (others === '') {
    const groups = last !== decimal && /^[-+]?[1-9]\d{0,2}[.,]\d{3}$/.test(text);
    return groups ? text.replace(last, '') : text.replace(last, '.');
  }
  const group = others[0] ?? '';
  if ([...others].some((sign) => sign !== group)) return null;
  const whole = group === last ? text : text.slice(0, text.lastIndexOf(last));
  if (!GROUPS.test(whole.replaceAll(group, ','))) return null;
  const joined = text.replaceAll(group, '');
  return group === last ? joined : joined.replace(last, '.');
}
