import { z } from 'zod';
import { create } from 'zustand';
import { markColours } from '@/core/colour/markColours';
import { colour } from '@/core/values/shapes';
import { firstStyles, kindOf, markNames, type MarkName } from '@/core/marks/registry';
import { styleSchema, type Style } from '@/core/marks/style';
import { pick } from '../../../core/marks/base';

const KEY = 'rezzik-styles';

type Styles = Record<MarkName, Style>;

/** What each tool was set to last; what cannot be read is as at first. */
function remembered(): Styles {
  const styles = { ...firstStyles };
  try {
    const read = z
      .record(z.string(), z.unknown())
      .parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
    for (const name of markNames) {
      const style = styleSchema.partial().safeParse(read[name]);
      if (style.success) styles[name] = { ...firstStyles[name], ...defined(style.data) };
    }
  } catch {
    // Somebody else's or an older value: the first styles serve.
  }
  return styles;
}

/** A newer Rezzik has settings that an older one did not store. */
const defined = (style: object): object =>
  Object.fromEntries(Object.entries(style).filter(([, value]) => value !== undefined));

export const useStyles = create<Styles>(remembered);

export function rememberStyle(name: MarkName, change: Partial<Style>): void {
  useStyles.setState((styles) => ({ [name]: { ...styles[name], ...change } }));
  try {
    localStorage.setItem(KEY, JSON.stringify(useStyles.getState()));
  } catch {
    // A full store only means that the settings are forgotten.
  }
}

/** A shot is opened: what each shot begins anew, such as the count of numbers, is as at first. */
export function beginAnew(): void {
  for (const name of markNames) {
    const fields = kindOf(name).anew;
    if (fields) rememberStyle(name, pick(firstStyles[name], fields));
  }
}

const OWN = 'rezzik-own-colours';
/** So many own colours stand beside the eight. */
const MOST_OWN = 5;

function ownRemembered(): string[] {
  try {
    return z
      .array(colour)
      .parse(JSON.parse(localStorage.getItem(OWN) ?? '[]'))
      .slice(0, MOST_OWN);
  } catch {
    return [];
  }
}

/** The person's own colours, the one used last first. */
export const useOwnColours = create<{ own: readonly string[] }>(() => ({ own: ownRemembered() }));

export function rememberColour(hex: string): void {
  if (markColours.some((known) => known.hex === hex) || hex === '#FFFFFF') return;
  const own = [hex, ...useOwnColours.getState().own.filter((c) => c !== hex)].slice(0, MOST_OWN);
  useOwnColours.setState({ own });
  try {
    localStorage.setItem(OWN, JSON.stringify(own));
  } catch {
    // As above.
  }
}
