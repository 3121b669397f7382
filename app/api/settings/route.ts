import { settingsPatchSchema } from '@/core/contracts/settings';
import { stopHolding } from '@/server/display/held/holding';
import { watchKeys } from '@/server/take/systemKeys';
import { readJson } from '@/server/http/body';
import { openLinks } from '@/server/door/listener';
import { route } from '@/server/http/route';
import { changeSettings, readSettings } from '@/server/settings/settings';

export const GET = route(async () => {
  const { settings, problem } = await readSettings();
  return Response.json({ ...settings, ...(problem && { problem }) });
});

export const PATCH = route(async (request) => {
  const patch = await readJson(request, settingsPatchSchema);
  const write = () => changeSettings(patch);
  const settings = await (patch.linkPort === undefined
    ? write()
    : openLinks(patch.linkPort, write));
  if (patch.displayAllowed !== undefined) await watchKeys();
  if (patch.displayAllowed === false)
    stopHolding('Rezzik may not read this computer’s screen any more.');
  return Response.json(settings);
});
