import { provenanceSchema } from '@/core/contracts/provenance';
import { title as titleSchema, type Stored } from '@/core/contracts/shot';
import { limits } from '@/core/values/limits';
import { z } from 'zod';
import { Fault } from '../base/fault';
import { takeIn, type Frame } from '../frames/intake';
import { fit, parseJson } from '../http/body';
import { readForm, type Form } from '../http/form';
import { run } from '../pool/pool';
import { storeShot } from '../shots/store';

const MOST = 500;
const FIELD = /^frame(\d{3})$/;

/**
 * The form of POST /api/stitch: pictures of something that was scrolled, in the order of their
 * fields `frame000`, `frame001` …, become one shot.
 * @throws Fault 400 without pictures, 413, 415, 422 where one does not join those before it
 */
export async function stitch(request: Request): Promise<Stored> {
  const form = await readForm(request);
  const words = { id: form.words('id'), title: form.words('title') };
  const told = form.words('provenance');
  const provenance = told === undefined ? undefined : parseJson(told, provenanceSchema);
  const id = words.id === undefined ? undefined : fit(words.id, z.uuid());
  const title = words.title === undefined ? undefined : fit(words.title, titleSchema);
  const fields = fieldsOf(form);
  const frames = await takeAllIn(form, fields);
  const [{ width, height } = { width: 0, height: 0 }] = frames;
  const held = Math.min(limits.pixels, frames.length * width * height);
  const joined = await run(
    'stitch',
    { frames: frames.map(({ bytes }) => bytes) },
    { pixels: held, signal: request.signal },
  );
  if ('odd' in joined) throw oddOne(fields[joined.odd] ?? '', joined.why);
  const source = { source: 'api' as const, takenAt: new Date().toISOString() };
  return storeShot({
    ...{ id, title, picture: joined.png },
    provenance: { ...(provenance ?? source), frames: joined.frames },
  });
}

/** The fields of the pictures, in their order. */
function fieldsOf({ fileFields }: Form): string[] {
  const fields = fileFields.filter((field) => FIELD.test(field)).sort();
  if (fields.length === 0)
    throw new Fault(400, 'no-picture', 'The form has no picture in a field “frame000”.');
  if (new Set(fields).size < fields.length)
    throw new Fault(400, 'bad-request', 'Two pictures of the form have the same field.');
  if (fields.length > MOST)
    throw new Fault(413, 'too-large', `At most ${MOST} pictures can be joined.`);
  return fields;
}

async function takeAllIn({ files }: Form, fields: readonly string[]): Promise<Frame[]> {
  const frames: Frame[] = [];
  // One after the other: all their pixels at once may be more than there is room for.
  for (const field of fields) {
    const [file] = files(field);
    const frame = await takeIn(file?.bytes ?? new Uint8Array());
    const [first = frame] = frames;
    if (frame.width !== first.width || frame.height !== first.height) throw oddOne(field, 'size');
    frames.push(frame);
  }
  return frames;
}

const reasons = {
  size: 'has another size than the first.',
  apart: 'does not join those before it. Where it belongs cannot be told.',
  full: 'would make it larger than a picture may be: 134 megapixels and 32 767 a side.',
} as const;

const oddOne = (field: string, why: keyof typeof reasons): Fault =>
  new Fault(
    422,
    why === 'size' ? 'other-size' : why === 'full' ? 'too-many-pixels' : 'no-seam',
    `${field} ${reasons[why]}`,
  );
