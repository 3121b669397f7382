import type { Sharp } from 'sharp';
import { z } from 'zod';
import type { FormatFacts, FormatName, FormatOptions, OptionField } from '@/core/contracts/format';
import type { Facts } from '@/core/keep/facts';
import type { Pixels, Unpainted } from '../paint/flatten';

/** What is turned into a file: the picture as it leaves, in its final size. */
export interface Source {
  pixels: Pixels;
  /** The shot itself, for formats that hold shapes; nothing of it may leave that is not shown. */
  shot: Unpainted;
}

export interface Wish {
  /** 1–100, for formats that lose something. */
  quality: number;
  options: FormatOptions;
  /** Behind transparent parts where the format has none: #RRGGBB. */
  background: string;
  facts: Facts;
}

/** Everything that makes a file format, in one place. */
export interface Format extends Omit<FormatFacts, 'fields'> {
  name: FormatName;
  fields: readonly OptionField[];
  /**
   * With such options it computes by itself and runs in a thread, which is handed the painted
   * pixels or the shot; null where the library does it all.
   */
  thread?: (options: FormatOptions) => 'pixels' | 'shot' | null;
  encode(source: Source, wish: Wish): Promise<Uint8Array>;
  /**
   * What the library writes by itself, of an opaque picture that it may not even have decoded yet;
   * null where these options need the pixels themselves.
   */
  write?: (image: Sharp, wish: Wish) => Promise<Uint8Array> | null;
}

function valueSchema(field: OptionField): z.ZodType<string | number | boolean> {
  if (field.kind === 'switch') return z.boolean().default(field.first);
  if (field.kind === 'choice')
    return z.enum(field.choices.map((c) => c.value)).default(field.first);
  return z.number().min(field.min).max(field.max).default(field.first);
}

/** The schema of a format's own options: unknown ones are refused, missing ones take their first value. */
export const optionsOf = (format: Pick<Format, 'fields'>) =>
  z.strictObject(Object.fromEntries(format.fields.map((f) => [f.name, valueSchema(f)])));

/** Fields as the interface and the schema need them, written short. */
export const field = {
  on: (name: string, label: string, first = false): OptionField => ({
    kind: 'switch',
    name,
    label,
    first,
  }),
  choice: (
    name: string,
    label: string,
    choices: readonly (readonly [string, string])[],
  ): OptionField => ({
    kind: 'choice',
    name,
    label,
    choices: choices.map(([value, words]) => ({ value, label: words })),
    first: choices[0]?.[0] ?? '',
  }),
  number: (
    name: string,
    label: string,
    [min, max, first]: readonly [number, number, number],
    step = 1,
  ): OptionField => ({ kind: 'number', name, label, min, max, step, first }),
};
