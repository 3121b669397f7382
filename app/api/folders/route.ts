import { folderInputSchema } from '@/core/contracts/folder';
import { env } from '@/server/base/env';
import { addFolder, listFolders } from '@/server/folders/folders';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const GET = route(async () =>
  Response.json({ folders: await listFolders(), roots: env().roots }),
);

export const POST = route(async (request) =>
  Response.json(await addFolder(await readJson(request, folderInputSchema)), { status: 201 }),
);
