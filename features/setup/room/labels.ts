import type { monthKinds, RoomKind } from '@/core/contracts/room';

/** What each kind is called, and what it is. */
export const kindLabels: Record<RoomKind, { label: string; note: string }> = {
  frames: { label: 'Pictures', note: 'each frame once, however many shots show it' },
  originals: { label: 'Opened files', note: 'as they were before they became frames' },
  marks: { label: 'Marks', note: 'what is drawn, with the steps of undo' },
  finding: { label: 'Finding', note: 'words that were read, and what shots are found by' },
  thumbnails: { label: 'Small pictures', note: 'made anew when they are missing' },
  sending: { label: 'Links and sendings', note: 'pictures as they are shown, or wait to be sent' },
  films: { label: 'Films', note: 'of clips, as files beside the database' },
};

/** In the order in which they stand on each other. */
export const fills: Record<(typeof monthKinds)[number], string> = {
  frames: 'var(--color-petrol)',
  originals: 'var(--color-saffron)',
  marks: 'var(--color-edge)',
};

/** 2026-11 as people say it. */
export const monthName = (month: string, style: 'short' | 'long'): string =>
  new Intl.DateTimeFormat(undefined, { month: style, year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${month}-15T00:00:00Z`),
  );
