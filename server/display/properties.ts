import { isUtf8 } from 'node:buffer';
import { compoundText } from '@/core/screen/compoundText';
import type { Property } from 'x11';
import { askMaybe, type Screen } from './connection';

/** Any type of a property. */
const ANY = 0;

const atomOf = ({ X }: Screen, name: string): Promise<number | null> =>
  askMaybe((done) => X.InternAtom(false, name, done));

async function property(screen: Screen, id: number, name: string): Promise<Property | null> {
  const atom = await atomOf(screen, name);
  if (!atom) return null;
  const found = await askMaybe<Property>((done) =>
    screen.X.GetProperty(0, id, atom, ANY, 0, 16_384, done),
  );
  return found && found.type !== 0 ? found : null;
}

const decode = (encoding: string, bytes: Uint8Array): string =>
  new TextDecoder(encoding).decode(bytes);

/** A property as words, decoded by what it says it is; empty when it is missing. */
export async function text(screen: Screen, id: number, name: string): Promise<string> {
  const found = await property(screen, id, name);
  if (found?.format !== 8) return '';
  const [utf8, compound] = await Promise.all(
    ['UTF8_STRING', 'COMPOUND_TEXT'].map((type) => atomOf(screen, type)),
  );
  if (found.type === compound) return compoundText(found.data, decode);
  // Programs write UTF-8 into plain strings, too; what is none is Latin-1.
  return found.data.toString(found.type === utf8 || isUtf8(found.data) ? 'utf8' : 'latin1');
}

/** The 32-bit values of a property; none when it is missing. */
export async function words(screen: Screen, id: number, name: string): Promise<number[]> {
  const found = await property(screen, id, name);
  return found?.format === 32 ? toWords(found.data) : [];
}

export async function readWords(screen: Screen, id: number, atom: number): Promise<number[]> {
  const found = await askMaybe<Property>((done) =>
    screen.X.GetProperty(0, id, atom, ANY, 0, 1024, done),
  );
  return found?.format === 32 ? toWords(found.data) : [];
}

const toWords = (data: Buffer): number[] =>
  Array.from({ length: Math.floor(data.length / 4) }, (_, i) => data.readUInt32LE(i * 4));

export const windowList = (screen: Screen, name: string): Promise<number[]> =>
  words(screen, screen.root, name);
