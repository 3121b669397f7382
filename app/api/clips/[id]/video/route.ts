import { filmOf } from '@/server/clips/rows';
import { fileAnswer } from '@/server/http/fileRange';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>(async (request, params) => {
  const { path, type, sha256 } = await filmOf(readId(params));
  return fileAnswer(request, { path, type, etag: sha256 });
});
