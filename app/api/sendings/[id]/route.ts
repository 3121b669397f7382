import { sendingPatchSchema } from '@/core/contracts/remote';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { dropSending, sendAgain, stopSending } from '@/server/remote/sendings';

/** Tries again now. */
export const POST = route<{ id: string }>(async (_request, params) =>
  Response.json(await sendAgain(readId(params))),
);

/** Stops it: it is not tried again until somebody asks for that. */
export const PATCH = route<{ id: string }>(async (request, params) => {
  await readJson(request, sendingPatchSchema);
  return Response.json(await stopSending(readId(params)));
});

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await dropSending(readId(params));
  return new Response(null, { status: 204 });
});
