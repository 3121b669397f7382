import { archiveInputSchema, planPatchSchema } from '@/core/contracts/archive';
import { getArchive, listArchives, readPlan, setPlan } from '@/server/archive/rows';
import { archiveTo } from '@/server/archive/toFolder';
import { usableFolder } from '@/server/folders/folders';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

const all = async (): Promise<Response> =>
  Response.json({ archives: await listArchives(), plan: await readPlan() });

export const GET = route(all);

export const POST = route(async (request) => {
  const { folderId, query } = await readJson(request, archiveInputSchema);
  const id = await archiveTo(folderId, query);
  return Response.json(await getArchive(id), { status: 202 });
});

/** Sets the plan, or ends it. */
export const PATCH = route(async (request) => {
  const { plan } = await readJson(request, planPatchSchema);
  if (plan) await usableFolder(plan.folderId);
  await setPlan(plan);
  return all();
});
