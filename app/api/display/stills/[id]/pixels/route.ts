import { z } from 'zod';
import { heldStill } from '@/server/display/held';
import { fit } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

const querySchema = z.object({ window: z.coerce.number().int().min(0).optional() });

/** Raw RGBA: to the same computer, sending is faster than packing. */
export const GET = route<{ id: string }>(async (request, params) => {
  const still = heldStill(readId(params));
  const { window } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const { data } = window === undefined ? await still.pixels() : await still.withOwn(window);
  return new Response(data, { headers: { 'Content-Type': 'application/octet-stream' } });
});
