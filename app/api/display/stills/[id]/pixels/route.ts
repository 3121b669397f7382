import { z } from 'zod';
import { heldStill } from '@/server/display/heldStills';
import { fit } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

const querySchema = z.object({
  window: z.coerce.number().int().min(0).optional(),
  alone: z.enum(['0', '1']).default('0'),
});

/** Raw RGBA: to the same computer, sending is faster than packing. */
export const GET = route<{ id: string }>(async (request, params) => {
  const still = heldStill(readId(params));
  const { window, alone } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const { data } =
    window === undefined
      ? await still.pixels()
      : await (alone === '1' ? still.alone(window) : still.withOwn(window));
  return new Response(data, { headers: { 'Content-Type': 'application/octet-stream' } });
});
