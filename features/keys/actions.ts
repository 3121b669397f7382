import { kindOf, markNames, type MarkName } from '@/core/marks/registry';

/** What has a key of its own beside the tools that make marks: what it does, where, its first key. */
const others = {
  'take.start': { group: 'Take', label: 'Take', first: 'enter' },
  'take.full': { group: 'Take', label: 'Full screen', first: '1' },
  'take.window': { group: 'Take', label: 'Window', first: '2' },
  'take.region': { group: 'Take', label: 'Region', first: '3' },
  'take.shape': { group: 'Take', label: 'Free shape', first: '4' },
  'take.part': { group: 'Take', label: 'Part', first: '5' },
  'take.repeat': { group: 'Take', label: 'Repeat region', first: '6' },
  'take.long': { group: 'Take', label: 'Long page', first: '7' },
  'take.series': { group: 'Take', label: 'Series', first: '8' },
  'take.back': { group: 'Take', label: 'Look back', first: '9' },
  'take.clip': { group: 'Take', label: 'Clip', first: '0' },
  'clip.begin': { group: 'Clip', label: 'Begin here', first: '[' },
  'clip.end': { group: 'Clip', label: 'End here', first: ']' },
  'clip.cut': { group: 'Clip', label: 'Cut out', first: '/' },
  'clip.mark': { group: 'Clip', label: 'Mark this picture', first: 'm' },
  'clip.still': { group: 'Clip', label: 'Pick a still', first: 'i' },
  'take.again': { group: 'Anywhere', label: 'Throw away and take again', first: 'shift+t' },
  'still.colour': { group: 'On the stilled picture', label: 'Pick colour', first: 'i' },
  'still.measure': { group: 'On the stilled picture', label: 'Measure', first: 'm' },
  'back.show': { group: 'Anywhere', label: 'Look back: the last 10 s', first: 'shift+b' },
  'trail.show': { group: 'Anywhere', label: 'Trail: the last takes', first: 'shift+l' },
  'go.take': { group: 'Anywhere', label: 'Go to Take', first: 'shift+n' },
  'go.mark': { group: 'Anywhere', label: 'Go to Mark, the shot in hand', first: 'shift+m' },
  'go.keep': { group: 'Anywhere', label: 'Go to Keep', first: 'shift+k' },
  'go.shelf': { group: 'Anywhere', label: 'Go to the Shelf', first: 'shift+s' },
  'go.search': { group: 'Anywhere', label: 'Search the Shelf', first: 'mod+f' },
  'mark.older': { group: 'Mark: look', label: 'Older shot', first: 'pagedown' },
  'mark.newer': { group: 'Mark: look', label: 'Newer shot', first: 'pageup' },
  'keys.show': { group: 'Anywhere', label: 'All keys', first: '?' },
  'tool.grab': { group: 'Mark: tools', label: 'Grab', first: 'g' },
  'tool.eraser': { group: 'Mark: tools', label: 'Eraser', first: 'e' },
  'tool.measure': { group: 'Mark: tools', label: 'Measure', first: 'm' },
  'tool.colour': { group: 'Mark: tools', label: 'Pick colour', first: 'i' },
  'tool.crop': { group: 'Mark: tools', label: 'Crop', first: 'k' },
  'tool.turn': { group: 'Mark: tools', label: 'Turn', first: 'r' },
  'tool.words': { group: 'Mark: tools', label: 'Copy words', first: '.' },
  'tool.finish': { group: 'Mark: tools', label: 'Finish', first: ',' },
  'mark.private': { group: 'Mark: tools', label: 'Find private things', first: 'f' },
  'mark.undo': { group: 'Mark: arrange', label: 'Undo', first: 'mod+z' },
  'mark.redo': { group: 'Mark: arrange', label: 'Redo', first: 'mod+y' },
  'mark.duplicate': { group: 'Mark: arrange', label: 'Duplicate', first: 'mod+d' },
  'mark.delete': { group: 'Mark: arrange', label: 'Delete', first: 'delete' },
  'mark.forward': { group: 'Mark: arrange', label: 'Forward', first: ']' },
  'mark.back': { group: 'Mark: arrange', label: 'Back', first: '[' },
  'mark.thicker': { group: 'Mark: arrange', label: 'Thicker, larger', first: 'alt+arrowup' },
  'mark.thinner': { group: 'Mark: arrange', label: 'Thinner, smaller', first: 'alt+arrowdown' },
  'mark.fit': { group: 'Mark: look', label: 'Fit', first: '0' },
  'mark.actual': { group: 'Mark: look', label: 'Actual pixels', first: '1' },
  'mark.closer': { group: 'Mark: look', label: 'Closer', first: '+' },
  'mark.further': { group: 'Mark: look', label: 'Further', first: '-' },
  'mark.rail': { group: 'Mark: tools', label: 'Rail', first: 'w' },
  'mark.trueUp': { group: 'Mark: arrange', label: 'True up', first: 'v' },
  'mark.paste': { group: 'Mark: arrange', label: 'Paste marks', first: 'mod+v' },
  'mark.all': { group: 'Mark: arrange', label: 'Select all', first: 'mod+a' },
  'mark.copy': { group: 'Keep', label: 'Copy the picture', first: 'mod+c' },
  'keep.usual': { group: 'Keep', label: 'Keep in the default folder', first: 'mod+shift+enter' },
  'keep.go': { group: 'Keep', label: 'Go to Keep; keep', first: 'mod+enter' },
} as const;

type OtherName = keyof typeof others;
export type ActionName = OtherName | `tool.${MarkName}`;
export type ActionGroup = (typeof others)[OtherName]['group'];

export interface ActionFacts {
  name: ActionName;
  group: ActionGroup;
  label: string;
  first: string;
}

const isOther = (name: string): name is OtherName => Object.hasOwn(others, name);

/** The tool that makes marks of a kind. */
const toolFacts = (kind: MarkName): ActionFacts => ({
  name: `tool.${kind}`,
  group: 'Mark: tools',
  label: kindOf(kind).label,
  first: kindOf(kind).key ?? '',
});

const byName = new Map<ActionName, ActionFacts>();
for (const name of Object.keys(others).filter(isOther)) {
  byName.set(name, { name, ...others[name] });
  // The tools that make marks stand together, after the one that takes hold of them.
  if (name !== 'tool.grab') continue;
  for (const kind of markNames) {
    if (kindOf(kind).key) byName.set(`tool.${kind}`, toolFacts(kind));
  }
}

/** Everything that has a key of its own. */
export const allActions: readonly ActionFacts[] = [...byName.values()];

/** @throws Error for a kind of mark that no tool makes */
export function actionFacts(name: ActionName): ActionFacts {
  const facts = byName.get(name);
  if (!facts) throw new Error(`Nothing does ${name}.`);
  return facts;
}

/** Keys that lead out of things or move things; they cannot be given away. */
export const fixedKeys = [
  'escape',
  'tab',
  'space',
  'arrowleft',
  'arrowright',
  'arrowup',
  'arrowdown',
];

/** Views that are open at the same time as a group; two actions there cannot share a key. */
const together: Record<ActionGroup, string> = {
  Take: 'take',
  'On the stilled picture': 'take',
  Anywhere: 'all',
  'Mark: tools': 'mark',
  'Mark: arrange': 'mark',
  'Mark: look': 'mark',
  Keep: 'mark',
  Clip: 'clip',
};

/** The key of an action: the person's own, else the first one; empty for none. */
export const keyOf = (name: ActionName, own: Record<string, string>): string =>
  own[name] ?? actionFacts(name).first;

/** The actions that already have a key where `name` acts too. */
export function conflicts(
  name: ActionName,
  key: string,
  own: Record<string, string>,
): ActionFacts[] {
  const place = together[actionFacts(name).group];
  return allActions.filter((other) => {
    if (other.name === name || keyOf(other.name, own) !== key) return false;
    const there = together[other.group];
    return there === place || there === 'all' || place === 'all';
  });
}

/** Where a key of a routine means something else already: it does not act there. */
export interface Clash {
  view: string;
  label: string;
}

/** What a view is called where its keys are spoken of. */
const viewNames: Record<string, string> = { take: 'Take', mark: 'Mark', all: 'every view' };

/** The actions that a routine's key would meet, view by view; a view's own key comes first. */
export const clashesOf = (key: string, own: Record<string, string>): Clash[] =>
  allActions
    .filter((a) => keyOf(a.name, own) === key)
    .map((a) => ({ view: viewNames[together[a.group]] ?? a.group, label: a.label }));
