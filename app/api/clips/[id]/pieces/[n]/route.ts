import { z } from 'zod';
import { clipLimits } from '@/core/contracts/clip';
import { addPiece } from '@/server/clips/recordings';
import { fit, readBytes } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

const numberSchema = z.coerce.number().int().min(0).max(1_000_000);

export const PUT = route<{ id: string; n: string }>(async (request, params) => {
  const number = fit(params.n, numberSchema);
  const bytes = await readBytes(request, clipLimits.pieceBytes);
  return Response.json(await addPiece(readId(params), number, bytes));
});
