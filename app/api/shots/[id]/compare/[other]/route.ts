import { z } from 'zod';
import { compared } from '@/core/contracts/compare';
import { fit } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { shotDifferences } from '@/server/keep/differences';

const querySchema = z.strictObject({ of: z.enum(compared).default('marked') });

export const GET = route<{ id: string; other: string }>(async (request, params) => {
  const { of } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const other = readId({ id: params.other });
  return Response.json(await shotDifferences(readId(params), other, of));
});
