import { sendInputSchema } from '@/core/contracts/remote';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { listSendings, sendTo } from '@/server/remote/sendings';

export const GET = route<{ id: string }>(async (_request, params) =>
  Response.json({ sendings: await listSendings(readId(params)) }),
);

export const POST = route<{ id: string }>(async (request, params) => {
  const { remoteId } = await readJson(request, sendInputSchema);
  return Response.json(await sendTo(readId(params), remoteId), { status: 201 });
});
