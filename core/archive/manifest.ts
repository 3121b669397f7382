import { z } from 'zod';
import { entryKind } from './entries';

const lineSchema = z.strictObject({
  name: z.string().max(200),
  /** Of the entry as it is unpacked. */
  bytes: z.int().min(0),
  /** Of the same, as FIPS 180-4 has it, in hexadecimal digits. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
});
export type ManifestLine = z.infer<typeof lineSchema>;

export const manifestLine = (line: ManifestLine): string =>
  `${JSON.stringify({ name: line.name, bytes: line.bytes, sha256: line.sha256 })}\n`;

export interface Manifest {
  /** Each entry that is told, once. */
  lines: ManifestLine[];
  /** Lines that say nothing sound, by their number from 1, with the reason. */
  odd: { line: number; why: string }[];
}

/**
 * Reads a manifest. A line that cannot be read, that tells of a name no archive has or of one that
 * was told before, is odd; the others hold.
 */
export function readManifest(text: string): Manifest {
  const manifest: Manifest = { lines: [], odd: [] };
  const told = new Set<string>();
  text.split('\n').forEach((written, i) => {
    if (written.trim() === '') return;
    const line = readLine(written);
    const why =
      line === null
        ? 'it is no line of a manifest'
        : entryKind(line.name) === null
          ? `“${line.name}” is no entry of an archive`
          : told.has(line.name)
            ? `“${line.name}” is told twice`
            : null;
    if (line === null || why !== null) manifest.odd.push({ line: i + 1, why: why ?? '' });
    else {
      told.add(line.name);
      manifest.lines.push(line);
    }
  });
  return manifest;
}

function readLine(written: string): ManifestLine | null {
  try {
    return lineSchema.safeParse(JSON.parse(written)).data ?? null;
  } catch {
    return null;
  }
}
