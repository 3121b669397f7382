import { filmOf } from '@/server/clips/rows';
import { fileAnswer } from '@/server/http/fileRange';
import { readId, route } from '@/server/http/route';
import { stripPath } from '@/server/media/files';

export const GET = route<{ id: string }>(async (request, params) => {
  const id = readId(params);
  const { sha256 } = await filmOf(id);
  return fileAnswer(request, { path: stripPath(id), type: 'image/jpeg', etag: `strip ${sha256}` });
});
