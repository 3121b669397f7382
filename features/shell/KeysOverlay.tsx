import { useState } from 'react';
import { allActions, keyOf, type ActionGroup } from '../keys/actions';
import { keyLabel, useAction } from '../keys/useAction';
import { modifier } from '../keys/useKey';
import { useRoutines } from '../take/routineStore';
import { useSettings } from '../settings/settingsStore';
import { Key } from '../ui/Key';
import { Modal } from '../ui/Modal';
import { followLink, usePath } from '../thread/navigate';

type View = 'take' | 'mark' | 'keep' | 'shelf' | 'clip';

interface Group {
  title: string;
  views: readonly View[];
  keys: [string, string][];
}

const everywhere: readonly View[] = ['take', 'mark', 'keep', 'shelf', 'clip'];

const viewsOf: Record<ActionGroup, readonly View[]> = {
  Take: ['take'],
  'On the stilled picture': ['take'],
  Anywhere: everywhere,
  'Mark: tools': ['mark'],
  'Mark: arrange': ['mark'],
  'Mark: look': ['mark'],
  Keep: ['mark', 'keep'],
  Clip: ['clip'],
};

/** Keys that cannot be changed, since they mean the same everywhere. */
const fixed: Group[] = [
  {
    title: 'Always',
    views: everywhere,
    keys: [
      ['One step out', 'Esc'],
      ['The yellow button', 'Enter'],
      ['Back to the view before', 'Alt ←'],
      ['Next group, within a group', 'Tab, Arrow keys'],
      ['Bring a picture in', `${modifier} V, drop`],
    ],
  },
  {
    title: 'On the stilled picture',
    views: ['take'],
    keys: [
      ['Take what is chosen', 'Enter'],
      ['Get out, leaving nothing', 'Esc'],
      ['Move the region', 'Arrow keys'],
      ['Move it by 10 px', 'Shift Arrow keys'],
      ['Widen or narrow it', 'Alt Arrow keys'],
      ['Next window', 'Tab, Arrow keys'],
      ['Window by its name', 'Letters'],
      ['Part: out, in', '↑ ↓, wheel'],
      ['Copy what is read off', `${modifier} C`],
    ],
  },
  {
    title: 'Over the film',
    views: ['clip'],
    keys: [
      ['Play, pause', 'Space'],
      ['Picture by picture', '← →'],
      ['To the next change', `${modifier} ← →`],
      ['Choose a stretch', 'Shift ← →, drag'],
      ['Its begin, its end', 'Home, End'],
      ['Keep it', `${modifier} Enter`],
    ],
  },
  {
    title: 'On the picture',
    views: ['mark'],
    keys: [
      ['Add the tool’s mark', 'Enter'],
      ['Duplicate by dragging', `${modifier} or Alt, drag`],
      ['Keep ratio or direction', 'Shift, drag'],
      ['Move freely, no snapping', 'Alt while dragging'],
      ['Pan', 'Space, drag'],
      ['Enlarge', `${modifier} wheel`],
      ['Next, previous (Marks list)', '↑ ↓'],
      ['Move by 1, by 10 px', 'Arrow keys, Shift'],
      ['Redo', `${modifier} Shift Z`],
    ],
  },
  {
    title: 'Shelf',
    views: ['shelf'],
    keys: [
      ['Search', '/'],
      ['Next shot', 'Arrow keys'],
      ['Look large', 'Space'],
      ['Open in Mark', 'Enter'],
      ['Choose among several', `${modifier} Space`],
      ['All from the last one to it', 'Shift Space'],
      ['More about a search or tag', '→'],
    ],
  },
  { title: 'Keep', views: ['keep'], keys: [['See it before', 'Space, held']] },
];

const viewOf = (path: string): View => {
  if (path.endsWith('/keep')) return 'keep';
  if (path.startsWith('/shots/')) return 'mark';
  return path.startsWith('/shelf') ? 'shelf' : 'take';
};

function useGroups(): Group[] {
  const own = useSettings((s) => s.settings.keys);
  const routines = useRoutines((s) => s.routines);
  const names = [...new Set(allActions.map((a) => a.group))];
  const changeable = names.map((title): Group => ({
    title,
    views: viewsOf[title],
    keys: allActions
      .filter((a) => a.group === title)
      .map((a): [string, string] => [a.label, keyLabel(keyOf(a.name, own))]),
  }));
  const keyed = routines.flatMap(({ name, key }): [string, string][] =>
    key ? [[name, keyLabel(key)]] : [],
  );
  return [...changeable, ...fixed, { title: 'Routines', views: everywhere, keys: keyed }];
}

/** All keys of the view as they are now, on “?”; a filter finds one by its words or key. */
export function KeysOverlay() {
  const [open, setOpen] = useState(false);
  useAction('keys.show', () => setOpen(true));
  return (
    <Modal
      open={open}
      wide
      title="Keys"
      description="They act wherever the focus is, but in a field that is typed into."
      onClose={() => setOpen(false)}
    >
      <List onLeave={() => setOpen(false)} />
    </Modal>
  );
}

function List({ onLeave }: { onLeave: () => void }) {
  const [words, setWords] = useState('');
  const view = viewOf(usePath());
  const wanted = words.trim().toLowerCase();
  // A search looks through all views.
  const fits = (group: Group) =>
    wanted === '' || group.title.toLowerCase().includes(wanted) ? () => true : matches(wanted);
  const groups = useGroups()
    .filter((group) => wanted !== '' || group.views.includes(view))
    .map((group) => ({ ...group, keys: group.keys.filter(fits(group)) }))
    .filter((group) => group.keys.length > 0);
  return (
    <>
      <div className="mb-3 flex items-center gap-4">
        <input
          aria-label="Find a key"
          placeholder="Find by words or key, in all views"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className="h-8 w-72 rounded-[6px] border border-edge bg-card px-2"
        />
        <a
          href="/setup/keys"
          className="text-[13px] text-petrol underline"
          onClick={(event) => {
            onLeave();
            followLink(event);
          }}
        >
          Change keys in Setup
        </a>
      </div>
      {groups.length === 0 && <p className="text-soft">No key fits these words.</p>}
      <div className="gap-6 text-[13px] leading-[18px] md:columns-2 lg:columns-3 xl:columns-4">
        {groups.map(({ title, keys }, i) => (
          <section key={`${title} ${i}`} className="mb-3">
            <h3 className="break-after-avoid font-bold">{title}</h3>
            <dl>
              {keys.map(([what, key]) => (
                <div
                  key={what}
                  className="flex break-inside-avoid items-center justify-between gap-2 py-px"
                >
                  <dt className="truncate text-soft" title={what}>
                    {what}
                  </dt>
                  <dd className="shrink-0">
                    <Key>{key}</Key>
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </>
  );
}

const matches =
  (wanted: string) =>
  ([what, key]: [string, string]): boolean =>
    what.toLowerCase().includes(wanted) || key.toLowerCase() === wanted;
