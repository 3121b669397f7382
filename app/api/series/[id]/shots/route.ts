import { readId, route } from '@/server/http/route';
import { entriesAnswer } from '@/server/series/entries';

export const GET = route<{ id: string }>((request, params) =>
  entriesAnswer(request, readId(params), ['taken']),
);
