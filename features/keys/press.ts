/** Pressed keys as they are written down, and what a focused element does with a key itself. */

interface Pressed {
  key: string;
  code?: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

const modifiers = ['Control', 'Meta', 'Alt', 'Shift', 'AltGraph', 'Dead', 'CapsLock'];

/**
 * The sign a key gives. Letters of a script without a–z are read by where they lie, so that the
 * tools have keys there, too.
 */
function signOf({ key, code }: Pressed): string {
  if (key === ' ') return 'space';
  const foreign = key.length === 1 && key > '\u024f' && /^\p{L}$/u.test(key);
  const place = foreign ? /^Key([A-Z])$/.exec(code ?? '')?.[1] : undefined;
  return (place ?? key).toLowerCase();
}

/** A pressed key as it is written down: modifiers first; null for a modifier alone. */
export function keyFromEvent(event: Pressed): string | null {
  if (modifiers.includes(event.key)) return null;
  const sign = signOf(event);
  const parts = [
    (event.ctrlKey || event.metaKey) && 'mod',
    event.altKey && 'alt',
    // With Shift a sign is already another sign; a letter or a named key is not.
    event.shiftKey && (/^[a-z]$/.test(sign) || sign.length > 1) && 'shift',
    sign,
  ];
  return parts.filter(Boolean).join('+');
}

/** What kind of control has the focus, as far as keys are concerned. */
export type Focused =
  /** Several lines of words. */
  | 'text'
  /** One line of words or a number. */
  | 'line'
  /** A closed list of choices. */
  | 'list'
  | 'slider'
  | 'radio'
  /** A row of a list, whose arrow keys lead to the next. */
  | 'row'
  /** Anything that Enter or Space presses. */
  | 'control'
  | 'none';

const moving = ['arrowleft', 'arrowright', 'arrowup', 'arrowdown', 'home', 'end'];
const paging = ['pageup', 'pagedown'];
const erasing = ['backspace', 'delete'];
/** With the main modifier a field copies, pastes, cuts, selects all and undoes its own typing. */
const editing = ['a', 'c', 'v', 'x', 'z', 'y', ...moving, ...erasing];

function isTyping(held: readonly string[], sign: string): boolean {
  if (sign.length > 1 && /^f\d+$/.test(sign)) return false;
  if (sign === 'escape') return false;
  if (held.includes('mod')) return editing.includes(sign);
  return sign !== 'enter' || held.length === 0;
}

/**
 * Whether the focused control takes a key itself, so that it is no shortcut there.
 * @param key as `keyFromEvent` writes it
 * @param moved the focus was moved there by keyboard: only then Enter and Space are meant for it.
 *   After a click the focus stays on what was clicked without being meant.
 */
export function takesItself(focused: Focused, key: string, moved: boolean): boolean {
  const parts = key.endsWith('++') ? [...key.slice(0, -2).split('+'), '+'] : key.split('+');
  const sign = key === '+' ? '+' : (parts.at(-1) ?? '');
  const held = key === '+' ? [] : parts.slice(0, -1);
  const press = held.length === 0 && (sign === 'space' || sign === 'enter');
  switch (focused) {
    case 'text':
      return (
        sign === 'escape' || (sign === 'enter' && held.join() === 'shift') || isTyping(held, sign)
      );
    case 'line':
      return (sign === 'escape' && held.length === 0) || isTyping(held, sign);
    case 'list':
      if (held.join() === 'alt') return moving.includes(sign);
      return (
        held.length === 0 && ([...moving, ...paging, 'space'].includes(sign) || (press && moved))
      );
    case 'slider':
      return (
        !held.includes('mod') && !held.includes('alt') && [...moving, ...paging].includes(sign)
      );
    case 'radio':
      if (sign === 'enter') return false;
      return moved && held.length === 0 && (moving.includes(sign) || sign === 'space');
    case 'row':
      return held.length === 0 && (['arrowup', 'arrowdown'].includes(sign) || (press && moved));
    case 'control':
      return moved && held.length === 0 && (press || moving.includes(sign));
    case 'none':
      return false;
  }
}
