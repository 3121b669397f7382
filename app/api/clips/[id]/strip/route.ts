import { filmOf } from '@/server/clips/rows';
import { hiddenStrip } from '@/server/clips/strip';
import { fileAnswer } from '@/server/http/fileRange';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { stripPath } from '@/server/media/files';

export const GET = route<{ id: string }>(async (request, params) => {
  const id = readId(params);
  const { sha256 } = await filmOf(id);
  const hidden = await hiddenStrip(id);
  if (hidden) return bytesAnswer(hidden, 'image/jpeg');
  return fileAnswer(request, { path: stripPath(id), type: 'image/jpeg', etag: `strip ${sha256}` });
});
