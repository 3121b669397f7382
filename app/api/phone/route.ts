import { noteAddress, openBase } from '@/server/links/base';
import { route } from '@/server/http/route';
import { lastOffer, makeOffer } from '@/server/phone/offers';

const answer = () => Response.json({ open: openBase() !== null, offer: lastOffer() });

export const GET = route(() => Promise.resolve(answer()));

export const POST = route(async () => {
  await noteAddress();
  makeOffer();
  return answer();
});
