/** In which form a shot goes to the clipboard. */
export const clipForms = ['picture', 'both', 'markdown', 'html', 'path'] as const;
export type ClipForm = (typeof clipForms)[number];

export interface MailWish {
  to: string;
  subject: string;
  /** Into the mail drop of this computer, not into a file. */
  drop: boolean;
}

/** Where a shot is kept this time. */
export interface Places {
  folders: string[];
  /** Folders of the computer that the browser runs on. */
  browser: string[];
  remotes: string[];
  clipboard: boolean;
  clipForm: ClipForm;
  link: boolean;
  /** Days until a new link ends; null for never. */
  linkDays: number | null;
  /** Views until it ends; null for any number. */
  linkViews: number | null;
  mail: boolean;
  message: MailWish;
}

/** A list with something in it, or without. */
export const toggled = <T>(list: readonly T[], one: T, on: boolean): T[] =>
  on ? [...list, one] : list.filter((other) => other !== one);

/** What is chosen without one folder, of whatever kind. */
export const without = (places: Places, gone: string): Places => ({
  ...places,
  folders: toggled(places.folders, gone, false),
  browser: toggled(places.browser, gone, false),
  remotes: toggled(places.remotes, gone, false),
});

export const noPlaces: Places = {
  folders: [],
  browser: [],
  remotes: [],
  clipboard: false,
  clipForm: 'picture',
  link: false,
  linkDays: 7,
  linkViews: null,
  mail: false,
  message: { to: '', subject: '', drop: false },
};

export const countOf = (p: Places): number =>
  p.folders.length +
  p.browser.length +
  p.remotes.length +
  [p.clipboard, p.link, p.mail].filter(Boolean).length;
