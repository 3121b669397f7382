import { readForm } from '@/server/http/form';
import { route } from '@/server/http/route';
import { storeShared } from '@/server/shots/share';

/** Pictures shared by the system with the installed app: new shots, the first one opened. */
export const POST = route(async (request) => {
  const [first] = await storeShared(await readForm(request));
  return new Response(null, {
    status: 303,
    headers: { Location: first ? `/shots/${first}` : '/take' },
  });
});
