import { Readable } from 'node:stream';
import { archiveQuerySchema } from '@/core/contracts/archive';
import { httpDisposition } from '@/core/naming/disposition';
import { archiveFrom } from '@/server/archive/fromFile';
import { archiveName, handOut } from '@/server/archive/handOut';
import { getArchive } from '@/server/archive/rows';
import { Fault } from '@/server/base/fault';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';

const asked = (request: Request) =>
  fit(Object.fromEntries(new URL(request.url).searchParams), archiveQuerySchema);

/** Everything, or what a search matches, as one file that is written while it is read. */
export const GET = route(async (request) => {
  const { q, as } = asked(request);
  const name = archiveName(new Date());
  const stream = await handOut(q, as ?? name, request.signal);
  return new Response(Readable.toWeb(stream) as ReadableStream<Uint8Array>, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': httpDisposition('attachment', name),
    },
  });
});

/** Brings in an archive; what comes of it is told under the id that is answered. */
export const POST = route(async (request) => {
  if (
    !/^application\/(zip|octet-stream|x-zip-compressed)\b/i.test(
      request.headers.get('content-type') ?? '',
    )
  ) {
    throw new Fault(415, 'not-a-zip', 'The request must be a zip (Content-Type: application/zip).');
  }
  const id = await archiveFrom(request, asked(request).as ?? 'An archive');
  return Response.json(await getArchive(id), { status: 202 });
});
