import type { Size } from '@/core/geometry/size';
import type { Monitor } from '@/core/contracts/display';
import { isUtf8 } from 'node:buffer';
import { askMaybe, type Screen } from './connection';

const GET_MONITORS = 42;

/**
 * RRGetMonitors (RandR 1.5), which the package x11 does not have.
 * @returns name atoms with places, in the server's order
 */
function requestMonitors({ X, root, randr }: Screen): Promise<RawMonitor[] | null> {
  return askMaybe<RawMonitor[]>((done) => {
    const request = Buffer.alloc(12);
    request.writeUInt8(randr?.majorOpcode ?? 0, 0);
    request.writeUInt8(GET_MONITORS, 1);
    request.writeUInt16LE(3, 2);
    request.writeUInt32LE(root, 4);
    request.writeUInt8(1, 8);
    X.seq_num += 1;
    X.pack_stream.put(request);
    X.replies[X.seq_num] = [readMonitors, done];
    X.pack_stream.submit(true);
  });
}

interface RawMonitor {
  atom: number;
  primary: boolean;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The answer after its first eight bytes, as the package hands it over. */
export function readMonitors(bytes: Buffer): RawMonitor[] {
  const count = bytes.readUInt32LE(4);
  const monitors: RawMonitor[] = [];
  for (let i = 0, at = 24; i < count; i += 1) {
    const outputs = bytes.readUInt16LE(at + 6);
    monitors.push({
      atom: bytes.readUInt32LE(at),
      primary: bytes.readUInt8(at + 4) === 1,
      x: bytes.readInt16LE(at + 8),
      y: bytes.readInt16LE(at + 10),
      width: bytes.readUInt16LE(at + 12),
      height: bytes.readUInt16LE(at + 14),
    });
    at += 24 + outputs * 4;
  }
  return monitors;
}

/** The monitors of a screen; the whole screen as one where the server knows of none. */
export async function monitors(screen: Screen, size: Size): Promise<Monitor[]> {
  const raw = (screen.randr && (await requestMonitors(screen))) ?? [];
  const named = await Promise.all(
    raw.map(async ({ atom, ...place }, i) => {
      const name = await askMaybe<string>((done) => atomName(screen, atom, done));
      return { ...place, name: name === null ? `Monitor ${i + 1}` : asWritten(name) };
    }),
  );
  const seen = named.filter((m) => m.width > 0 && m.height > 0);
  if (seen.length > 0) {
    return seen.some((m) => m.primary) ? seen : seen.map((m, i) => ({ ...m, primary: i === 0 }));
  }
  return [{ name: 'Screen', x: 0, y: 0, ...size, primary: true }];
}

/** The package reads names of atoms as Latin-1; nowadays they are written in UTF-8. */
function asWritten(name: string): string {
  const bytes = Buffer.from(name, 'latin1');
  return isUtf8(bytes) ? bytes.toString('utf8') : name;
}

function atomName(
  { X }: Screen,
  atom: number,
  done: (error: Error | null | undefined, value: string) => boolean,
): void {
  X.GetAtomName(atom, done);
}
