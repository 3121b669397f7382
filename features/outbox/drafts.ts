import type { ShotDocument } from '@/core/document/document';
import { shotChangeSchema, type ShotChange } from '@/core/contracts/shot';
import { held, type Draft } from './db';

const TAB_LOCK = 'rezzik-tab ';

/** This tab's name, the same after a reload. Held as a lock, so other tabs know it is open. */
function ownTab(): string {
  const before = sessionStorage.getItem('rezzik-tab');
  if (before) return before;
  const fresh = crypto.randomUUID();
  sessionStorage.setItem('rezzik-tab', fresh);
  return fresh;
}

let tab: Promise<string> | null = null;

/** Claimed once: whoever asks while the lock is being had would find it taken by this tab itself. */
const claimTab = (): Promise<string> => (tab ??= claim());

/** A tab that was duplicated carries the other's name: then the lock is taken, and it gets a new one. */
async function claim(): Promise<string> {
  const wanted = ownTab();
  const got = await new Promise<boolean>((answer) => {
    void navigator.locks.request(TAB_LOCK + wanted, { ifAvailable: true }, (lock) => {
      answer(lock !== null);
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
  if (!got) {
    sessionStorage.removeItem('rezzik-tab');
    return claim();
  }
  return wanted;
}

/** Shots that were opened in this page: whoever has them open sees to their drafts. */
const opened = new Set<string>();
/** Drafts that nobody has open, on their way, by their shot. */
const sent = new Map<string, Promise<unknown>>();

/** Holds a change in the browser until the server has it; `underway`: what was sent before it. */
export async function holdDraft(
  shot: string,
  change: ShotChange,
  underway?: ShotDocument,
): Promise<void> {
  opened.add(shot);
  const name = await claimTab();
  await (await held()).put('drafts', { key: `${shot} ${name}`, shot, tab: name, change, underway });
}

export async function dropDraft(draft: Pick<Draft, 'key'>): Promise<void> {
  await (await held()).delete('drafts', draft.key);
}

export async function dropOwnDraft(shot: string): Promise<void> {
  await dropDraft({ key: `${shot} ${await claimTab()}` });
}

/**
 * A draft as this version has it; an older Rezzik may have left it. One that cannot be read, as of a
 * newer one, stays where it is.
 */
function readable(draft: Draft): Draft[] {
  // As it would be sent: fields without a value are not there, which the browser's store keeps.
  const read = shotChangeSchema.safeParse(JSON.parse(JSON.stringify(draft.change)));
  return read.success ? [{ ...draft, change: read.data }] : [];
}

/** Those that this tab has, or had before it was loaded anew, and those of closed tabs. */
async function left(drafts: readonly Draft[]): Promise<Draft[]> {
  const own = await claimTab();
  const { held: locks = [] } = await navigator.locks.query();
  const open = new Set(locks.map((lock) => lock.name));
  const mine = drafts.filter((d) => d.tab === own || !open.has(TAB_LOCK + d.tab));
  return mine.flatMap(readable);
}

/** Changes of a shot that never reached the server, for whoever opens it. */
export async function orphanedDrafts(shot: string): Promise<Draft[]> {
  opened.add(shot);
  await sent.get(shot)?.catch(() => undefined);
  return left(await (await held()).getAllFromIndex('drafts', 'shot', shot));
}

/** What became of a draft: refused ones stay for whoever opens their shot. */
export type DraftFate = 'sent' | 'refused' | 'unreachable';

/**
 * Sends what was drawn on shots that nobody has open any more, the tab having been closed or loaded
 * anew before the server had it.
 * @returns false when the server does not answer
 */
export async function sendLeft(
  send: (shot: string, change: ShotChange) => Promise<DraftFate>,
): Promise<boolean> {
  const drafts = await (await held()).getAll('drafts');
  if (drafts.length === 0) return true;
  for (const draft of await left(drafts)) {
    if (opened.has(draft.shot)) continue;
    const sending = send(draft.shot, draft.change).then(async (fate) => {
      if (fate === 'sent') await dropDraft(draft);
      return fate;
    });
    sent.set(draft.shot, sending);
    const fate = await sending.finally(() => sent.delete(draft.shot));
    if (fate === 'unreachable') return false;
  }
  return true;
}
