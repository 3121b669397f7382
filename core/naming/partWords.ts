/** Plain words for what accessibility calls things by other ones (AT-SPI and WAI-ARIA role names). */
const plain: Record<string, string> = {
  'push button': 'button',
  'toggle button': 'button',
  'push button menu': 'button',
  'check box': 'check box',
  checkbox: 'check box',
  'radio button': 'choice',
  radio: 'choice',
  'page tab': 'tab',
  'page tab list': 'tabs',
  'tab list': 'tabs',
  text: 'text',
  'text box': 'field',
  entry: 'field',
  'password text': 'field',
  'search box': 'field',
  'spin button': 'number field',
  'combo box': 'list to choose from',
  'table cell': 'cell',
  'grid cell': 'cell',
  'table column header': 'heading',
  'column header': 'heading',
  'table row header': 'heading',
  'row header': 'heading',
  'list item': 'row',
  'tree item': 'row',
  'table row': 'row',
  'tree table': 'table',
  'check menu item': 'menu item',
  'radio menu item': 'menu item',
  'popup menu': 'menu',
  'drawing area': 'drawing',
  'scroll pane': 'scrolled area',
  frame: 'window',
};

/** What only holds other things together and draws nothing of its own. */
const HOLDERS = new Set([
  ...['filler', 'viewport', 'layered pane', 'root pane', 'glass pane', 'redundant object'],
  ...['split pane', 'application', 'section', 'unknown', 'invalid', 'widget', 'extended'],
]);
/** These do so as long as they have no name. */
const HOLDERS_UNNAMED = new Set(['panel', 'group', 'generic', 'none', 'presentation', 'grouping']);

const LONGEST = 60;
/** A role is a word or a few; a program may write anything. */
const SPOKEN = /^[a-z][a-z ]{0,30}$/;

/** Names that toolkits make up of what a thing is in their code. */
const MADE_UP = /^(Gtk|Adw)[A-Z][A-Za-z]+$/;

/**
 * What a part of a window is called in a title or beside the pointer, such as: button “Save”.
 * @param role its role's name, @param name what the program calls it, perhaps nothing
 * @returns null for what nobody would point at
 */
export function partWords(role: string, name: string): string | null {
  const said = MADE_UP.test(name)
    ? ''
    : name
        .replace(/\p{C}+/gu, ' ')
        .replace(/\s+/gu, ' ')
        .trim();
  if (HOLDERS.has(role) || (!said && HOLDERS_UNNAMED.has(role))) return null;
  const word = plain[role] ?? (SPOKEN.test(role) ? role : 'part');
  const letters = [...said];
  const short = letters.length > LONGEST ? `${letters.slice(0, LONGEST - 1).join('')}…` : said;
  return short ? `${word} “${short}”` : word;
}
