import { duplicateSchema } from '@/core/contracts/shot';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { duplicateShot } from '@/server/shots/store';

export const POST = route<{ id: string }>(async (request, params) => {
  const given = await readJson(request, duplicateSchema);
  return Response.json(await duplicateShot(readId(params), given), { status: 201 });
});
