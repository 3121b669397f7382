import { linkInputSchema } from '@/core/contracts/link';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { listLinks, makeLink } from '@/server/links/links';

export const GET = route<{ id: string }>(async (_request, params) =>
  Response.json({ links: await listLinks(readId(params)) }),
);

export const POST = route<{ id: string }>(async (request, params) => {
  const input = await readJson(request, linkInputSchema);
  return Response.json(await makeLink(readId(params), input), { status: 201 });
});
