import { z } from 'zod';
import { formatNames } from '@/core/contracts/folder';
import { fit } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { formats } from '@/server/keep/formats';
import { encodedPicture } from '@/server/paint/picture';

const querySchema = z.object({
  format: z.enum(formatNames).default('png'),
  quality: z.coerce.number().int().min(1).max(100).default(85),
});

export const GET = route<{ id: string }>(async (request, params) => {
  const query = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const bytes = await encodedPicture(readId(params), query.format, query.quality);
  return bytesAnswer(bytes, formats[query.format].mediaType);
});
