import { readId, route } from '@/server/http/route';
import { dropSending, sendAgain } from '@/server/remote/queue';

/** Tries again now. */
export const POST = route<{ id: string }>(async (_request, params) =>
  Response.json(await sendAgain(readId(params))),
);

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await dropSending(readId(params));
  return new Response(null, { status: 204 });
});
