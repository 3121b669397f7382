import { route } from '@/server/http/route';
import { listDropped } from '@/server/mail/drop';

export const GET = route(async () => Response.json({ messages: await listDropped() }));
