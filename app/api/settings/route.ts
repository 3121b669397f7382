import { settingsPatchSchema } from '@/core/contracts/settings';
import { watchKeys } from '@/server/display/systemKeys';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { changeSettings, getSettings } from '@/server/settings/settings';

export const GET = route(async () => Response.json(await getSettings()));

export const PATCH = route(async (request) => {
  const patch = await readJson(request, settingsPatchSchema);
  const settings = await changeSettings(patch);
  if (patch.displayAllowed !== undefined) await watchKeys();
  return Response.json(settings);
});
