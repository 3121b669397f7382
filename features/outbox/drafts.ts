import type { ShotChange } from '@/core/contracts/shot';
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

let tab: string | null = null;

/** A tab that was duplicated carries the other's name: then the lock is taken, and it gets a new one. */
async function claimTab(): Promise<string> {
  if (tab) return tab;
  const wanted = ownTab();
  const got = await new Promise<boolean>((answer) => {
    void navigator.locks.request(TAB_LOCK + wanted, { ifAvailable: true }, (lock) => {
      answer(lock !== null);
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
  if (!got) {
    sessionStorage.removeItem('rezzik-tab');
    return claimTab();
  }
  tab = wanted;
  return wanted;
}

/** Holds a change in the browser until the server has it. */
export async function holdDraft(shot: string, change: ShotChange): Promise<void> {
  const name = await claimTab();
  await (await held()).put('drafts', { key: `${shot} ${name}`, shot, tab: name, change });
}

export async function dropDraft(draft: Pick<Draft, 'key'>): Promise<void> {
  await (await held()).delete('drafts', draft.key);
}

export async function dropOwnDraft(shot: string): Promise<void> {
  await dropDraft({ key: `${shot} ${await claimTab()}` });
}

/** Changes of a shot that never reached the server: this tab's own and those of closed tabs. */
export async function orphanedDrafts(shot: string): Promise<Draft[]> {
  const own = await claimTab();
  const drafts = await (await held()).getAllFromIndex('drafts', 'shot', shot);
  const { held: locks = [] } = await navigator.locks.query();
  const open = new Set(locks.map((lock) => lock.name));
  return drafts.filter((d) => d.tab === own || !open.has(TAB_LOCK + d.tab));
}
