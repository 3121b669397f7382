import { clipEndSchema } from '@/core/contracts/clip';
import { endHere } from '@/server/clips/display';
import { endRecording } from '@/server/clips/recordings';
import { clipOrRecording } from '@/server/clips/rows';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const id = readId(params);
  const wish = await readJson(request, clipEndSchema);
  await endHere(id);
  await endRecording(id, wish);
  return Response.json(await clipOrRecording(id));
});
