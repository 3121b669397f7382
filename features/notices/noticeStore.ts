import { create } from 'zustand';

export interface Notice {
  key: string;
  tone: 'plain' | 'good' | 'bad';
  title: string;
  /** Where it went, what is safe, what to do. */
  lines?: string[];
  /** The system's own words. */
  reason?: string;
  /** A small picture: an object URL that lives as long as the notice, or a thumbnail's address. */
  picture?: string;
  action?: { label: string; act: () => void };
  second?: { label: string; hint?: string; act: () => void };
  /** Opened by a click on the picture. */
  href?: string;
  /** When it appeared. */
  born: number;
  /** When it may go by itself; one that tells of trouble stays. */
  until: number | null;
}

interface Notices {
  notices: Notice[];
}

/** At least this long does a notice stay. */
const STAYS = 9000;
/** So many wait behind the one that is shown. */
const MOST = 3;

export const useNotices = create<Notices>(() => ({ notices: [] }));

/** Shows a notice, in place of an earlier one with the same key. */
export function notify(notice: Omit<Notice, 'until' | 'born'> & { stays?: boolean }): void {
  const { stays = notice.tone === 'bad', ...rest } = notice;
  const born = Date.now();
  const until = stays ? null : born + STAYS;
  const { notices } = useNotices.getState();
  const others = notices.filter((n) => n.key !== notice.key).slice(-MOST);
  notices.filter((n) => !others.includes(n)).forEach(letGo);
  useNotices.setState({ notices: [...others, { ...rest, born, until }] });
}

/** A picture made for an answer goes with it. */
function letGo({ picture }: Notice): void {
  if (picture?.startsWith('blob:')) URL.revokeObjectURL(picture);
}

/** Shows the earliest of those that wait behind the one that is shown. */
export const bringForward = (): void =>
  useNotices.setState(({ notices: [first, ...rest] }) => ({
    notices: first ? [...rest, { ...first, born: Date.now() }] : [],
  }));

/** Changes a notice that is still shown. */
export function amend(key: string, change: Partial<Omit<Notice, 'key'>>): void {
  useNotices.setState(({ notices }) => ({
    notices: notices.map((n) => (n.key === key ? { ...n, ...change } : n)),
  }));
}

/** Lets go of those whose time is over at a moment, ms since 1970. */
export function dropOld(now: number): void {
  for (const { key, until } of useNotices.getState().notices)
    if (until !== null && until < now) dismiss(key);
}

export function dismiss(key: string): void {
  useNotices.setState(({ notices }) => {
    notices.filter((n) => n.key === key).forEach(letGo);
    return { notices: notices.filter((n) => n.key !== key) };
  });
}
