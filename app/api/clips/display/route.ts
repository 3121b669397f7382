import { displayClipSchema } from '@/core/contracts/clip';
import { recordDisplay, recordedNow } from '@/server/clips/display';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const GET = route(() => Promise.resolve(Response.json({ recording: recordedNow() })));

export const POST = route(async (request) => {
  const wish = await readJson(request, displayClipSchema);
  return Response.json(await recordDisplay(wish), { status: 201 });
});
