import { z } from 'zod';
import { filmOf } from '@/server/clips/rows';
import { hiddenStrip, keptStrip } from '@/server/clips/strip';
import { fit } from '@/server/http/body';
import { fileAnswer } from '@/server/http/fileRange';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { stripPath } from '@/server/media/files';

/** What else is asked for makes another address of what is another picture. */
const querySchema = z.object({ kept: z.stringbool().default(false) });

export const GET = route<{ id: string }>(async (request, params) => {
  const id = readId(params);
  const { etag } = await filmOf(id);
  const { kept } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const made = (kept && (await keptStrip(id))) || (await hiddenStrip(id));
  if (made) return bytesAnswer(made, 'image/jpeg');
  return fileAnswer(request, { path: stripPath(id), type: 'image/jpeg', etag: `strip ${etag}` });
});
