import x11 from 'x11';

/** Keys as they are named in Setup, by the names that X gives their keysyms (X11 keysymdef.h). */
const names: Record<string, string> = {
  ...{ enter: 'Return', escape: 'Escape', backspace: 'BackSpace', tab: 'Tab', space: 'space' },
  ...{ insert: 'Insert', delete: 'Delete', printscreen: 'Print', pause: 'Pause' },
  ...{ home: 'Home', end: 'End', pageup: 'Page_Up', pagedown: 'Page_Down' },
  ...{ arrowleft: 'Left', arrowup: 'Up', arrowright: 'Right', arrowdown: 'Down' },
};

/** What X calls a key of Setup; a sign that it has no such name for stands for itself. */
export const keysymName = (key: string): string =>
  names[key] ?? (/^f\d{1,2}$/.test(key) ? key.toUpperCase() : key);

/** The keysym of a key of Setup; null for one that there is not. */
export const keysymOf = (key: string): number | null =>
  x11.keySyms[`XK_${keysymName(key)}`]?.code ?? (key.length === 1 ? key.charCodeAt(0) : null);

/** Every key but signs and F keys. */
export const namedKeys = Object.keys(names);
