import { pressedSchema } from '@/core/contracts/clip';
import { addPressed } from '@/server/clips/pressed';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  await addPressed(readId(params), await readJson(request, pressedSchema));
  return new Response(null, { status: 204 });
});
