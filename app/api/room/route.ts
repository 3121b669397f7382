import { route } from '@/server/http/route';
import { roomLeft, roomUsed } from '@/server/room/used';

/** What is used for what; with `?left` only whether room runs short. */
export const GET = route(async (request) =>
  Response.json(
    new URL(request.url).searchParams.has('left') ? await roomLeft() : await roomUsed(),
  ),
);
