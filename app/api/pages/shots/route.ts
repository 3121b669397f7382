import { pageShotSchema } from '@/core/contracts/page';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addPage } from '@/server/take/pages';
import { answerOf, readWait } from '@/server/take/slow';

export const POST = route(async (request) => {
  const waits = readWait(request);
  const id = await addPage(await readJson(request, pageShotSchema));
  return answerOf(id, waits, request.signal);
});
