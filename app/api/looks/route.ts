import { lookInputSchema } from '@/core/contracts/look';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addLook, listLooks } from '@/server/looks/looks';

export const GET = route(async () => Response.json({ looks: await listLooks() }));

export const POST = route(async (request) =>
  Response.json(await addLook(await readJson(request, lookInputSchema)), { status: 201 }),
);
