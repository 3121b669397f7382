import { savedSearchInputSchema } from '@/core/contracts/search';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addSearch, listSearches } from '@/server/search/saved';

export const GET = route(async () => Response.json({ searches: await listSearches() }));

export const POST = route(async (request) =>
  Response.json(await addSearch(await readJson(request, savedSearchInputSchema)), { status: 201 }),
);
