import { once } from 'node:events';
import { Busboy, type BusboyInstance } from '@fastify/busboy';
import { limits } from '@/core/values/limits';
import { PIECE, loopTurn } from '../base/pieces';
import { bodyPieces } from './body';
import { Fault } from '../base/fault';

export interface FormFile {
  /** As it was called where it came from; may be empty. */
  name: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** What a form brought. */
export interface Form {
  /** A field's words; undefined when it is not there or empty. */
  words: (field: string) => string | undefined;
  files: (field: string) => readonly FormFile[];
  /** The field of each file, as they came. */
  fileFields: readonly string[];
}

const MOST_FILES = 1_000;

interface Arriving {
  field: string;
  name: string;
  pieces: Uint8Array[];
}

const tooMuch = (what: string) => new Fault(413, 'too-large', `This form has ${what}.`);
const notAForm = () => new Fault(400, 'not-a-form', 'The form could not be read.');

/**
 * A multipart form, read while it arrives: nothing waits until it is whole.
 * @throws Fault 400, 413, 415 or 503
 */
export async function readForm(request: Request): Promise<Form> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^multipart\/form-data\b/i.test(type)) {
    throw new Fault(415, 'not-a-form', 'The request must be multipart/form-data.');
  }
  const fields = new Map<string, string>();
  const arriving: Arriving[] = [];
  // What is wrong with it is said once it is there: whoever still sends hears no answer.
  const wrong: Fault[] = [];
  const parser = parserOf(type, fields, arriving, wrong);
  for await (const piece of bodyPieces(request, limits.formBytes)) {
    const bytes = Buffer.from(piece.buffer, piece.byteOffset, piece.length);
    if (wrong.length > 0 || parser.write(bytes) || wrong.length > 0) continue;
    await once(parser, 'drain').catch(() => undefined);
  }
  if (wrong.length === 0) {
    const done = once(parser, 'finish').catch(() => undefined);
    parser.end();
    await done;
  }
  if (wrong[0]) throw wrong[0];
  const files = await Promise.all(
    arriving.map(async ({ field, name, pieces }) => ({ field, name, bytes: await joined(pieces) })),
  );
  return {
    words: (field) => fields.get(field) || undefined,
    files: (field) => files.filter((file) => file.field === field),
    fileFields: files.map(({ field }) => field),
  };
}

function parserOf(
  type: string,
  fields: Map<string, string>,
  arriving: Arriving[],
  wrong: Fault[],
): BusboyInstance {
  try {
    const parser = new Busboy({
      headers: { 'content-type': type },
      limits: { fieldSize: limits.jsonBytes, fields: 100, files: MOST_FILES },
    });
    parser.on('error', () => wrong.push(notAForm()));
    parser.on('filesLimit', () => wrong.push(tooMuch(`more than ${MOST_FILES} files`)));
    parser.on('fieldsLimit', () => wrong.push(tooMuch('too many fields')));
    parser.on('field', (field, value, _, isCut) => {
      if (isCut) wrong.push(tooMuch('too large a field'));
      if (!fields.has(field)) fields.set(field, value);
    });
    parser.on('file', (field, stream, name) => {
      const file: Arriving = { field, name: name ?? '', pieces: [] };
      arriving.push(file);
      stream.on('data', (piece: Buffer) => file.pieces.push(piece));
      // The form itself is told to be broken, too.
      stream.on('error', () => undefined);
    });
    return parser;
  } catch {
    throw notAForm();
  }
}

async function joined(pieces: readonly Uint8Array[]): Promise<Uint8Array<ArrayBuffer>> {
  const all = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let [at, rested] = [0, 0];
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
    if (at - rested < PIECE) continue;
    rested = at;
    await loopTurn();
  }
  return all;
}
