import { remoteInputSchema } from '@/core/contracts/remote';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addRemote, listRemotes } from '@/server/remote/remotes';

export const GET = route(async () => Response.json({ remotes: await listRemotes() }));

export const POST = route(async (request) =>
  Response.json(await addRemote(await readJson(request, remoteInputSchema)), { status: 201 }),
);
