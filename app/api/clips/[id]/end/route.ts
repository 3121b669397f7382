import { clipEndSchema } from '@/core/contracts/clip';
import { endRecording } from '@/server/clips/recordings';
import { clipOrRecording } from '@/server/clips/rows';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const id = readId(params);
  await endRecording(id, await readJson(request, clipEndSchema));
  return Response.json(await clipOrRecording(id));
});
