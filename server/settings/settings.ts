import {
  firstSettings,
  settingsSchema,
  withPatch,
  type Settings,
  type SettingsPatch,
} from '@/core/contracts/settings';
import { json, sql } from '../db/sql';

/** How the person likes to work; what was never set is as at first. */
export async function getSettings(): Promise<Settings> {
  const [row] = await sql()<{ value: object }[]>`select value from settings`;
  return readSettings(row?.value);
}

function readSettings(value: object | undefined): Settings {
  const way = value && 'way' in value ? value.way : {};
  const read = settingsSchema.safeParse({
    ...firstSettings,
    ...value,
    way: { ...firstSettings.way, ...(way as object) },
  });
  return read.success ? read.data : firstSettings;
}

export async function changeSettings(patch: SettingsPatch): Promise<Settings> {
  return sql().begin(async (tx) => {
    await tx`insert into settings (value) values ('{}') on conflict (id) do nothing`;
    const [row] = await tx<{ value: object }[]>`select value from settings for update`;
    const next = withPatch(readSettings(row?.value), patch);
    await tx`update settings set value = ${json(next)}`;
    return next;
  });
}
