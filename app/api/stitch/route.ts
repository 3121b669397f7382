import { route } from '@/server/http/route';
import { stitch } from '@/server/stitch/stitch';

export const POST = route(async (request) => Response.json(await stitch(request), { status: 201 }));
