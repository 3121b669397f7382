import { DOCUMENT_VERSION } from '../version';
import { from1to2 } from './1to2';
import { from2to3 } from './2to3';
import { from3to4 } from './3to4';
import { from4to5 } from './4to5';
import { from5to6 } from './5to6';
import { isUnread, type Unread, type UnreadPatch, type Upgrade } from './contract';

/** What leads from each version to the next, from the first one on. */
const upgrades: readonly Upgrade[] = [from1to2, from2to3, from3to4, from4to5, from5to6];

/** The version of what was stored; what says none, as the first steps did, is of the first. */
const versionOf = ({ version }: Unread): number => (typeof version === 'number' ? version : 1);

/** True for a document, or a step, that a later Rezzik wrote: it must not be read halfway. */
export const isNewer = (stored: unknown): boolean =>
  isUnread(stored) && versionOf(stored) > DOCUMENT_VERSION;

/** What leads from a version to this one; nothing for an odd one, which the schema refuses. */
const since = (version: number): readonly Upgrade[] =>
  Number.isInteger(version) && version > 0 ? upgrades.slice(version - 1) : [];

const each = (values: unknown, change: (value: Unread) => Unread): unknown =>
  Array.isArray(values)
    ? values.map((value: unknown) => (isUnread(value) ? change(value) : value))
    : values;

const mark = (value: Unread, by: readonly Upgrade[]): Unread =>
  by.reduce((so, upgrade) => upgrade.mark?.(so) ?? so, value);

/** Marks of a version as this one has them; what is none stays as it is. */
export const upgradedMarks = (marks: unknown, version: number): unknown =>
  each(marks, (value) => mark(value, since(version)));

/** A stored document as this version has it; one of this version, a later one or none stays as it is. */
export function upgradedDocument(stored: unknown): unknown {
  if (!isUnread(stored)) return stored;
  const version = versionOf(stored);
  if (version >= DOCUMENT_VERSION || since(version).length === 0) return stored;
  return { ...stored, version: DOCUMENT_VERSION, marks: upgradedMarks(stored.marks, version) };
}

/** One change of a step: of the whole document, of its marks, of a mark or of a field of one. */
function upgradedPatch(patch: Unread, version: number): Unread {
  const { path, value } = patch;
  if (!Array.isArray(path)) return patch;
  const [where, , ...field] = path as (string | number)[];
  if (where === undefined) return { ...patch, value: upgradedDocument(value) };
  if (where !== 'marks') return patch;
  if (path.length === 1) return { ...patch, value: upgradedMarks(value, version) };
  const by = since(version);
  if (field.length === 0) return isUnread(value) ? { ...patch, value: mark(value, by) } : patch;
  const there: UnreadPatch = { path: path as string[], value };
  const to = by.reduce((so, upgrade) => upgrade.field?.(so) ?? so, there);
  return { ...patch, ...to };
}

/** A stored step of undo as this version has it, in the same way. */
export function upgradedStep(stored: unknown): unknown {
  if (!isUnread(stored)) return stored;
  const version = versionOf(stored);
  if (version >= DOCUMENT_VERSION || since(version).length === 0) return stored;
  const patches = (all: unknown) => each(all, (patch) => upgradedPatch(patch, version));
  return {
    ...stored,
    version: DOCUMENT_VERSION,
    patches: patches(stored.patches),
    inverse: patches(stored.inverse),
  };
}
