import { linkInputSchema } from '@/core/contracts/link';
import { linkGuide } from '@/server/guides/link';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const input = await readJson(request, linkInputSchema);
  return Response.json(await linkGuide(readId(params), input, request.signal), { status: 201 });
});
