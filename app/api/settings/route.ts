import { settingsPatchSchema } from '@/core/contracts/settings';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { changeSettings, getSettings } from '@/server/settings/settings';

export const GET = route(async () => Response.json(await getSettings()));

export const PATCH = route(async (request) =>
  Response.json(await changeSettings(await readJson(request, settingsPatchSchema))),
);
