import { bytesAnswer, route } from '@/server/http/route';
import { recogniserFile } from '@/server/recogniser';

/** The text recogniser's own files, which its worker loads. */
export const GET = route<{ file: string }>(async (_request, { file }) => {
  const { bytes, type } = await recogniserFile(file);
  return bytesAnswer(bytes, type, { 'Cache-Control': 'max-age=86400' });
});
