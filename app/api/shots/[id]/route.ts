import { z } from 'zod';
import { shotChangeSchema, title } from '@/core/contracts/shot';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { renameCopies } from '@/server/keep/renameCopies';
import { changeShot } from '@/server/shots/change';
import { getShot } from '@/server/shots/rows';
import { eraseShot, renameShot } from '@/server/shots/store';

interface Params {
  id: string;
}

const renameSchema = z.strictObject({
  title: title.trim().min(1, 'must not be empty'),
  /** The files of its kept copies get the name, too. */
  files: z.boolean().default(false),
});

export const GET = route<Params>(async (_, params) => Response.json(await getShot(readId(params))));

export const PUT = route<Params>(async (request, params) => {
  const change = await readJson(request, shotChangeSchema);
  return Response.json({ revision: await changeShot(readId(params), change) });
});

export const PATCH = route<Params>(async (request, params) => {
  const { title: wanted, files } = await readJson(request, renameSchema);
  const id = readId(params);
  await renameShot(id, wanted);
  const renamed = files ? await renameCopies(id, wanted) : undefined;
  return Response.json({ title: wanted, ...(renamed && { files: renamed }) });
});

export const DELETE = route<Params>(async (_, params) => {
  await eraseShot(readId(params));
  return new Response(null, { status: 204 });
});
