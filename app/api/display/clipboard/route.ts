import { z } from 'zod';
import { copyToDisplay } from '@/server/display/clipboard';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

const schema = z.strictObject({ shot: z.uuid() });

export const POST = route(async (request) => {
  await copyToDisplay((await readJson(request, schema)).shot);
  return new Response(null, { status: 204 });
});
