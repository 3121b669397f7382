import { route } from '@/server/http/route';
import { practiceSite } from '@/server/pages/practice/site';

export const POST = route(async () => Response.json({ address: await practiceSite() }));
