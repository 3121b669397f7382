import { describeDisplay } from '@/server/display/access';
import { route } from '@/server/http/route';

export const GET = route(async () => Response.json(await describeDisplay()));
