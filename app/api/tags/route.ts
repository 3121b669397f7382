import { route } from '@/server/http/route';
import { listTags } from '@/server/tags/tags';

export const GET = route(async () => Response.json({ tags: await listTags() }));
