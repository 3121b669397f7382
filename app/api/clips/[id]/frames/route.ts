import { z } from 'zod';
import { frameAt } from '@/server/clips/stills';
import { fit } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';

const querySchema = z.strictObject({ at: z.coerce.number().min(0).max(100_000) });

export const GET = route<{ id: string }>(async (request, params) => {
  const { at } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  return bytesAnswer(await frameAt(readId(params), at, request.signal), 'image/png');
});
