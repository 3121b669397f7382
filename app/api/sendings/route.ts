import { route } from '@/server/http/route';
import { listSendings } from '@/server/remote/sendings';

export const GET = route(async () => Response.json({ sendings: await listSendings() }));
