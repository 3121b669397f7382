import { folderPatchSchema } from '@/core/contracts/folder';
import { changeFolder, getFolder, removeFolder } from '@/server/folders/folders';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) =>
  Response.json(await getFolder(readId(params))),
);

export const PATCH = route<Params>(async (request, params) =>
  Response.json(await changeFolder(readId(params), await readJson(request, folderPatchSchema))),
);

export const DELETE = route<Params>(async (_, params) => {
  await removeFolder(readId(params));
  return new Response(null, { status: 204 });
});
