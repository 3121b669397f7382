import { z } from 'zod';
import { frameAt, markedFrameAt } from '@/server/clips/stills';
import { fit } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';

const querySchema = z.strictObject({
  at: z.coerce.number().min(0).max(100_000),
  marks: z.stringbool().default(false),
});

export const GET = route<{ id: string }>(async (request, params) => {
  const { at, marks } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const id = readId(params);
  const picture = marks ? await markedFrameAt(id, at) : await frameAt(id, at, request.signal);
  return bytesAnswer(picture, 'image/png');
});
