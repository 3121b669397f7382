import { heldPictureSchema } from '@/core/contracts/held';
import { heldPicture, readMoment } from '@/server/display/held/holding';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';

export const GET = route<{ moment: string }>(async (request, params) => {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const { width } = fit(query, heldPictureSchema);
  const picture = await heldPicture(readMoment(params), width);
  return new Response(new Uint8Array(picture), { headers: { 'Content-Type': 'image/jpeg' } });
});
