import { duplicateSchema } from '@/core/contracts/shot';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { joinShots } from '@/server/join/join';
import { duplicateShot } from '@/server/shots/store';

export const POST = route<{ id: string }>(async (request, params) => {
  const { join, ...given } = await readJson(request, duplicateSchema);
  const from = readId(params);
  const made = join ? joinShots(from, join, given) : duplicateShot(from, given);
  return Response.json(await made, { status: 201 });
});
