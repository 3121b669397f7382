import { route } from '@/server/http/route';
import { progress, retryStopped } from '@/server/reading/reading';
import { languages } from '@/server/reading/recognise';

/** How far the reading of words has come, and by what. */
export const GET = route(async () =>
  Response.json({ ...(await progress()), ...(await languages()) }),
);

/** All that could not be read are tried again. */
export const POST = route(async () => {
  await retryStopped();
  return new Response(null, { status: 204 });
});
