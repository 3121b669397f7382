import { route } from '@/server/http/route';
import { openedLinks } from '@/server/links/links';

export const GET = route(async () => Response.json({ links: await openedLinks() }));
