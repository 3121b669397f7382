import { filmsOf } from '@/server/guides/moving';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>((_, params) =>
  Promise.resolve(Response.json({ films: filmsOf(readId(params)) })),
);
