import { readId, route } from '@/server/http/route';
import { withdrawOffer } from '@/server/phone/offers';

export const DELETE = route<{ id: string }>((_request, params) => {
  withdrawOffer(readId(params));
  return Promise.resolve(new Response(null, { status: 204 }));
});
