import { httpDisposition } from '@/core/naming/disposition';
import { unstaleFile } from '@/server/clips/unstale';
import { fileAnswer } from '@/server/http/fileRange';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string; job: string }>(async (request, params) => {
  const job = readId({ id: params.job });
  const { name, ...file } = (await unstaleFile(readId(params), job)).file;
  return fileAnswer(request, file, { 'Content-Disposition': httpDisposition('attachment', name) });
});
