import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { z } from 'zod';
import { privateKinds, type PrivateKind } from '@/core/recognition/kinds';
import type { Paragraph } from '@/core/recognition/words';
import type { KnownThing } from './score';

const kinds = Object.keys(privateKinds) as [PrivateKind, ...PrivateKind[]];
const rect = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });

/** What is known to be on a screen. */
export const knownSchema = z.array(
  z.object({ kind: z.enum(kinds), text: z.string(), boxes: z.array(rect) }),
);

/** One screen: what is known to be there, and what the recogniser read at one and two times its size. */
export interface Screen {
  name: string;
  known: KnownThing[];
  passes: Paragraph[][];
}

/** Written anew by `REZZIK_RECORD=1 npm test -- browser private`; nobody reads it by eye. */
const file = join(import.meta.dirname, 'recorded.json.gz');

export const record = (screens: readonly Screen[]): void =>
  writeFileSync(file, gzipSync(JSON.stringify(screens)));

export const readRecorded = (): Screen[] =>
  JSON.parse(gunzipSync(readFileSync(file)).toString('utf8')) as Screen[];
