import { useState } from 'react';
import { allActions, keyOf } from '../keys/actions';
import { keyLabel, useAction } from '../keys/useAction';
import { useSettings } from '../take/settingsStore';
import { Key } from '../ui/Key';
import { Modal } from '../ui/Modal';
import { modifier } from '../ui/useKeys';
import { followLink } from './navigate';

/** Keys that cannot be changed, since they mean the same everywhere. */
const fixed: { title: string; keys: [string, string][] }[] = [
  {
    title: 'On the stilled picture',
    keys: [
      ['Take what is chosen', 'Enter'],
      ['Get out, leaving nothing', 'Esc'],
      ['Move the region', 'Arrow keys'],
      ['Move it by 10 px', 'Shift Arrow keys'],
      ['Widen or narrow it', 'Alt Arrow keys'],
      ['Next window', 'Tab, Arrow keys'],
      ['Part: out, in', '↑ ↓, wheel'],
    ],
  },
  {
    title: 'Mark',
    keys: [
      ['Add the tool’s mark', 'Enter'],
      ['Next, previous (Marks list)', 'Arrow keys'],
      ['Move by 1, by 10 px', 'Arrow keys, Shift'],
      ['Redo', `${modifier} Shift Z`],
      ['See it before (in Keep)', 'Space, held'],
    ],
  },
];

/** All keys as they are now, on “?”. */
export function KeysOverlay() {
  const [open, setOpen] = useState(false);
  const own = useSettings((s) => s.settings.keys);
  useAction('keys.show', () => setOpen(true));
  const names = [...new Set(allActions.map((a) => a.group))];
  const groups = names.map((title) => ({
    title,
    keys: allActions
      .filter((a) => a.group === title)
      .map((a): [string, string] => [a.label, keyLabel(keyOf(a.name, own))]),
  }));
  return (
    <Modal
      open={open}
      title="Keys"
      description="Letters act while no field has the focus."
      onClose={() => setOpen(false)}
    >
      <div className="grid grid-cols-2 gap-x-6 gap-y-4">
        {[...groups, ...fixed].map(({ title, keys }, i) => (
          <section key={`${title} ${i}`}>
            <h3 className="mb-1 font-bold">{title}</h3>
            <dl>
              {keys.map(([what, key]) => (
                <div key={what} className="flex items-center justify-between gap-2 py-0.5">
                  <dt className="text-soft">{what}</dt>
                  <dd>
                    <Key>{key}</Key>
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <p className="mt-4 text-[13px]">
        <a
          href="/setup/keys"
          className="text-petrol underline"
          onClick={(event) => {
            setOpen(false);
            followLink(event);
          }}
        >
          Change keys in Setup
        </a>
      </p>
    </Modal>
  );
}
