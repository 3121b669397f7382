import { clipChangeSchema } from '@/core/contracts/clip';
import { changeCuts, clipOrRecording } from '@/server/clips/rows';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) =>
  Response.json(await clipOrRecording(readId(params))),
);

export const PUT = route<Params>(async (request, params) => {
  const change = await readJson(request, clipChangeSchema);
  return Response.json({ revision: await changeCuts(readId(params), change) });
});
