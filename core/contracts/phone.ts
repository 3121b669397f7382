import { z } from 'zod';

/** A one-time address under which a phone may send one picture. */
export const phoneOfferSchema = z.object({
  id: z.uuid(),
  address: z.string(),
  endsAt: z.iso.datetime(),
  state: z.enum(['waiting', 'arriving', 'arrived', 'ended']),
  /** What went wrong last; the address is still good then. */
  problem: z.string().nullable(),
  /** The shot that came of it. */
  shot: z.uuid().nullable(),
});
export type PhoneOffer = z.infer<typeof phoneOfferSchema>;

export const phoneSchema = z.object({
  /** Whether the second door is open, without which no phone comes in. */
  open: z.boolean(),
  offer: phoneOfferSchema.nullable(),
});
