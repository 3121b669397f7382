import { z } from 'zod';
import { guideFormats } from '@/core/contracts/guide';
import { httpDisposition } from '@/core/naming/disposition';
import { guideFile } from '@/server/guides/file';
import { fit } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';

const querySchema = z.strictObject({ format: z.enum(guideFormats) });

export const GET = route<{ id: string }>(async (request, params) => {
  const query = new URL(request.url).searchParams;
  const { format } = fit(Object.fromEntries(query), querySchema);
  const { bytes, name, mediaType } = await guideFile(readId(params), format, request.signal);
  return bytesAnswer(bytes, mediaType, {
    'Content-Disposition': httpDisposition('attachment', name),
    // Opened by itself it may run and load nothing, whatever it says of itself.
    'Content-Security-Policy': 'sandbox',
  });
});
