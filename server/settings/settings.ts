import {
  firstSettings,
  settingsSchema,
  type Settings,
  type settingsPatchSchema,
} from '@/core/contracts/settings';
import type { z } from 'zod';
import { json, sql } from '../db/sql';

/** How the person likes to work; what was never set is as at first. */
export async function getSettings(): Promise<Settings> {
  const [row] = await sql()<{ value: object }[]>`select value from settings`;
  const read = settingsSchema.safeParse({ ...firstSettings, ...row?.value });
  return read.success ? read.data : firstSettings;
}

export async function changeSettings(
  patch: z.output<typeof settingsPatchSchema>,
): Promise<Settings> {
  await sql()`insert into settings (value) values (${json(patch)})
    on conflict (id) do update set value = settings.value || excluded.value`;
  return getSettings();
}
