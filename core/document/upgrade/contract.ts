/** What came out of JSON and is not known yet. */
export type Unread = Readonly<Record<string, unknown>>;

/** A change at a place of a document, as immer and JSON Patch describe it. */
export interface UnreadPatch {
  path: readonly (string | number)[];
  value?: unknown;
}

/**
 * What leads from one version of documents to the next. It is given what an older Rezzik stored, and
 * leaves alone what it does not know: whether all is right is checked afterwards, by the schema.
 */
export interface Upgrade {
  /** A mark as the next version has it; as it was where that says nothing new of marks. */
  mark?(mark: Unread): Unread;
  /** A change of one field of a mark, so that undo leads through documents of the next version. */
  field?(patch: UnreadPatch): UnreadPatch;
}

export const isUnread = (value: unknown): value is Unread =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
