import { displayShotSchema } from '@/core/contracts/display';
import { takeDisplay } from '@/server/take/takeDisplay';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const POST = route(async (request) =>
  Response.json(await takeDisplay(await readJson(request, displayShotSchema)), { status: 201 }),
);
