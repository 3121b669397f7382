import {
  firstSettings,
  settingsSchema,
  withPatch,
  type Settings,
  type SettingsPatch,
} from '@/core/contracts/settings';
import { firstWay, waySchema } from '@/core/contracts/way';
import { json, sql } from '../db/sql';

type Stored = Record<string, unknown>;

export interface ReadSettings {
  settings: Settings;
  /** What could not be read, in words; it is kept as it is stored. */
  problem?: string;
}

const isObject = (value: unknown): value is Stored =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Each field for itself: one that cannot be read is as at first, and is told. */
function fieldsOf<
  S extends { shape: Record<string, { safeParse: (v: unknown) => { success: boolean } }> },
>(schema: S, stored: Stored): { good: Stored; bad: string[] } {
  const good: Stored = {};
  const bad: string[] = [];
  for (const [name, field] of Object.entries(schema.shape)) {
    if (!(name in stored)) continue;
    if (field.safeParse(stored[name]).success) good[name] = stored[name];
    else bad.push(name);
  }
  return { good, bad };
}

/** What is stored, as far as it can be read; the rest is as at first. */
function readStored(value: unknown): ReadSettings {
  if (value === undefined) return { settings: firstSettings };
  if (!isObject(value)) {
    const problem =
      'The stored settings are not readable. They are kept aside; the first ones hold.';
    return { settings: firstSettings, problem };
  }
  const { way: storedWay, ...rest } = value;
  const way = fieldsOf(waySchema, isObject(storedWay) ? storedWay : {});
  const { way: _, ...shape } = settingsSchema.shape;
  const others = fieldsOf({ shape }, rest);
  const settings = settingsSchema.parse({
    ...firstSettings,
    ...others.good,
    way: { ...firstWay, ...way.good },
  });
  const bad = [...others.bad, ...way.bad];
  if (storedWay !== undefined && !isObject(storedWay)) bad.push('way');
  if (bad.length === 0) return { settings };
  const problem = `Kept as they are, but not read: ${bad.join(', ')}. A newer Rezzik may have written them.`;
  return { settings, problem };
}

/** How the person likes to work, and what of it could not be read. */
export async function readSettings(): Promise<ReadSettings> {
  const [row] = await sql()<{ value: unknown }[]>`select value from settings`;
  return readStored(row?.value);
}

/** How the person likes to work; what was never set is as at first. */
export const getSettings = async (): Promise<Settings> => (await readSettings()).settings;

/**
 * Changes only what the patch names: everything else stays as it is stored, also what this Rezzik
 * cannot read.
 */
export async function changeSettings(patch: SettingsPatch): Promise<Settings> {
  return sql().begin(async (tx) => {
    await tx`insert into settings (value) values ('{}') on conflict (id) do nothing`;
    const [row] = await tx<{ value: unknown }[]>`select value from settings for update`;
    if (!isObject(row?.value)) await tx`update settings set unread = value, value = '{}'`;
    const stored = isObject(row?.value) ? row.value : {};
    const next = withPatch(readStored(stored).settings, patch);
    const named = Object.keys(patch).map((name) => [name, next[name as keyof Settings]]);
    const way = patch.way && {
      way: { ...(isObject(stored.way) ? stored.way : {}), ...patch.way },
    };
    const value = { ...stored, ...(Object.fromEntries(named) as Stored), ...way };
    await tx`update settings set value = ${json(value)}`;
    return next;
  });
}
