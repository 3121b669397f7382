import { wheelTurnSchema } from '@/core/contracts/display';
import { turnWheel } from '@/server/display/wheel';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const POST = route(async (request) => {
  await turnWheel(await readJson(request, wheelTurnSchema));
  return new Response(null, { status: 204 });
});
