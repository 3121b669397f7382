import { settingsPatchSchema } from '@/core/contracts/settings';
import { watchKeys } from '@/server/display/systemKeys';
import { readJson } from '@/server/http/body';
import { Fault } from '@/server/http/fault';
import { openLinks } from '@/server/links/listener';
import { route } from '@/server/http/route';
import { changeSettings, getSettings } from '@/server/settings/settings';

export const GET = route(async () => Response.json(await getSettings()));

export const PATCH = route(async (request) => {
  const patch = await readJson(request, settingsPatchSchema);
  if (patch.linkPort !== undefined) {
    await openLinks(patch.linkPort).catch((error: unknown) => {
      throw new Fault(409, 'port-taken', `Port ${patch.linkPort} is in use by another program.`, {
        reason: String(error),
      });
    });
  }
  const settings = await changeSettings(patch);
  if (patch.displayAllowed !== undefined) await watchKeys();
  return Response.json(settings);
});
