import type { z } from 'zod';
import { limits } from '@/core/contracts/limits';
import { Fault } from './fault';

/**
 * The whole body, counted while it arrives.
 * @throws Fault 413 when it is larger than `most`, 400 when it ends before its announced length
 */
export async function readBytes(request: Request, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = () =>
    new Fault(413, 'too-large', `That is more than ${Math.floor(most / 1_000_000)} MB.`);
  const announced = request.headers.get('content-length');
  if (announced !== null && Number(announced) > most) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  try {
    for (;;) {
      const part = await reader?.read();
      if (!part || part.done) break;
      length += part.value.length;
      if (length > most) throw tooLarge();
      chunks.push(part.value);
    }
  } catch (error) {
    await reader?.cancel().catch(() => undefined);
    if (error instanceof Fault) throw error;
    throw new Fault(400, 'cut-short', 'The upload did not arrive whole. Nothing was stored.');
  }
  if (announced !== null && Number(announced) !== length) {
    throw new Fault(400, 'cut-short', 'The upload did not arrive whole. Nothing was stored.');
  }
  const whole = new Uint8Array(length);
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}

/** A JSON body that fits `schema`. @throws Fault 400, 413 or 415 */
export async function readJson<T extends z.ZodType>(
  request: Request,
  schema: T,
): Promise<z.output<T>> {
  if (!/^application\/json\b/i.test(request.headers.get('content-type') ?? '')) {
    throw new Fault(415, 'not-json', 'The request must be JSON (Content-Type: application/json).');
  }
  const bytes = await readBytes(request, limits.jsonBytes);
  return parseJson(new TextDecoder().decode(bytes), schema);
}

/** @throws Fault 400 naming the first thing that does not fit */
export function parseJson<T extends z.ZodType>(text: string, schema: T): z.output<T> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Fault(400, 'not-json', 'The request is not valid JSON.');
  }
  return fit(value, schema);
}

/** @throws Fault 400 naming the first thing that does not fit */
export function fit<T extends z.ZodType>(value: unknown, schema: T): z.output<T> {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  const place = issue?.path.length ? `${issue.path.join('.')}: ` : '';
  throw new Fault(400, 'does-not-fit', `${place}${issue?.message ?? 'does not fit'}`);
}

/** A multipart form. @throws Fault 400, 413 or 415 */
export async function readForm(request: Request): Promise<FormData> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^multipart\/form-data\b/i.test(type)) {
    throw new Fault(415, 'not-a-form', 'The request must be multipart/form-data.');
  }
  const bytes = await readBytes(request, limits.formBytes);
  try {
    return await new Response(bytes, { headers: { 'content-type': type } }).formData();
  } catch {
    throw new Fault(400, 'not-a-form', 'The form could not be read.');
  }
}
