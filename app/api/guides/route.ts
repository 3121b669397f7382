import { guideInputSchema } from '@/core/contracts/guide';
import { addGuide, listGuides } from '@/server/guides/guides';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const GET = route(async () => Response.json({ guides: await listGuides() }));

export const POST = route(async (request) =>
  Response.json(await addGuide(await readJson(request, guideInputSchema)), { status: 201 }),
);
