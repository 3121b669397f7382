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
  /** When it may go by itself; one that tells of trouble stays. */
  until: number | null;
}

interface Notices {
  notices: Notice[];
}

/** At least this long does a notice stay. */
const STAYS = 9000;

export const useNotices = create<Notices>(() => ({ notices: [] }));

/** Shows a notice, in place of an earlier one with the same key. */
export function notify(notice: Omit<Notice, 'until'> & { stays?: boolean }): void {
  const { stays = notice.tone === 'bad', ...rest } = notice;
  const until = stays ? null : Date.now() + STAYS;
  useNotices.setState(({ notices }) => ({
    notices: [...notices.filter((n) => n.key !== notice.key).slice(-3), { ...rest, until }],
  }));
}

/** Changes a notice that is still shown. */
export function amend(key: string, change: Partial<Omit<Notice, 'key'>>): void {
  useNotices.setState(({ notices }) => ({
    notices: notices.map((n) => (n.key === key ? { ...n, ...change } : n)),
  }));
}

export function dismiss(key: string): void {
  useNotices.setState(({ notices }) => {
    const gone = notices.find((n) => n.key === key);
    if (gone?.picture?.startsWith('blob:')) URL.revokeObjectURL(gone.picture);
    return { notices: notices.filter((n) => n.key !== key) };
  });
}
