import { clipChangeSchema } from '@/core/contracts/clip';
import { noteAsked, stateHere } from '@/server/clips/display';
import { changeCuts } from '@/server/clips/cuts';
import { letGoOf } from '@/server/clips/recordings';
import { clipOrRecording } from '@/server/clips/rows';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) => {
  const id = readId(params);
  noteAsked(id);
  return Response.json({ ...(await clipOrRecording(id)), ...stateHere(id) });
});

export const PUT = route<Params>(async (request, params) => {
  const change = await readJson(request, clipChangeSchema);
  return Response.json(await changeCuts(readId(params), change));
});

export const DELETE = route<Params>(async (_, params) => {
  await letGoOf(readId(params));
  return new Response(null, { status: 204 });
});
