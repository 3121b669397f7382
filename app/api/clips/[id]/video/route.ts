import { filmOf } from '@/server/clips/rows';
import { fileAnswer } from '@/server/http/fileRange';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>(async (request, params) => {
  return fileAnswer(request, await filmOf(readId(params)));
});
