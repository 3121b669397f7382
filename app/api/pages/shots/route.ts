import { z } from 'zod';
import { pageShotSchema } from '@/core/contracts/page';
import { fit, readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addPage, answerOf, awaitJob } from '@/server/take/pages';

const querySchema = z.object({ wait: z.enum(['0', '1']).default('0') });
/** What is there so soon is answered at once, ms. */
const SOON = 4_000;
const LONG = 600_000;

export const POST = route(async (request) => {
  const { wait } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const id = await addPage(await readJson(request, pageShotSchema));
  return answerOf(await awaitJob(id, wait === '1' ? LONG : SOON, request.signal));
});
