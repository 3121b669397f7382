import { heldMomentsSchema } from '@/core/contracts/held';
import { heldMoments } from '@/server/display/held/holding';
import { route } from '@/server/http/route';

/** From now on none comes or goes, for a minute after the last asking or until it goes on. */
export const GET = route(async () => Response.json(heldMomentsSchema.parse(await heldMoments())));
