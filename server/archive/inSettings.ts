import type { z } from 'zod';
import { LISTS } from '@/core/archive/entries';
import { settingsRecord } from '@/core/archive/records';
import { settingsSchema } from '@/core/contracts/settings';
import { waySchema } from '@/core/contracts/way';
import { json, sql } from '../db/sql';
import { withIds } from './asHere';
import type { Incoming } from './incoming';
import { Damaged } from './zipIn';

/** What lets others in, reads a screen or lets shots go is decided on each computer by whoever sits there. */
const DECIDED_HERE = new Set([
  ...['displayAllowed', 'partsAsked', 'pagesAllowed', 'pageHosts'],
  ...['linkPort', 'binDays', 'unkeptDays'],
]);

const fieldOf = (name: string): z.ZodType | undefined =>
  new Map<string, z.ZodType>(Object.entries(settingsSchema.shape)).get(name);

/** Settings that were never set here; the others stay as they are. */
export async function bringSettings(incoming: Incoming): Promise<void> {
  const { archive, reporting, ids } = incoming;
  if (!archive.has(LISTS.settings)) return;
  const stored = await archive.json(LISTS.settings, settingsRecord).catch((error: unknown) => {
    if (!(error instanceof Damaged)) throw error;
    reporting.damaged(LISTS.settings, error.message);
    return {};
  });
  const sound = Object.entries(stored).filter(([name, value]) => {
    if (DECIDED_HERE.has(name)) return false;
    const field = name === 'way' ? waySchema.partial() : fieldOf(name);
    if (field?.safeParse(value).success) return true;
    reporting.damaged(LISTS.settings, `“${name}” cannot be read by this Rezzik`);
    return false;
  });
  const value = withIds(Object.fromEntries(sound), ids);
  // What is here lies over what comes in.
  await sql()`insert into settings (value) values (${json(value)})
    on conflict (id) do update set value = excluded.value || settings.value
    where jsonb_typeof(settings.value) = 'object'`;
}
