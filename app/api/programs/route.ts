import { route } from '@/server/http/route';
import { listPrograms } from '@/server/programs/programs';

export const GET = route(async () => Response.json(await listPrograms()));
