import { useState } from 'react';
import { Key } from '../ui/Key';
import { Modal } from '../ui/Modal';
import { modifier, useKey } from '../ui/useKeys';

const groups: { title: string; keys: [string, string][] }[] = [
  {
    title: 'Take',
    keys: [
      ['Full screen', '1'],
      ['Region', '3'],
      ['Take', 'Enter'],
      ['Move the region', 'Arrow keys'],
      ['Move it by 10 px', 'Shift Arrow keys'],
      ['Widen or narrow it', 'Alt Arrow keys'],
      ['Take the region', 'Enter'],
      ['Get out, leaving nothing', 'Esc'],
      ['Throw away and take again', 'Shift T'],
    ],
  },
  {
    title: 'Mark: tools',
    keys: [
      ['Grab', 'G'],
      ['Arrow', 'A'],
      ['Line', 'L'],
      ['Box', 'B'],
      ['Oval', 'O'],
      ['Pen', 'P'],
      ['Highlighter', 'H'],
      ['Text', 'T'],
      ['Crop', 'K'],
      ['Add the tool’s mark', 'Enter'],
    ],
  },
  {
    title: 'Mark: arrange',
    keys: [
      ['Undo, redo', `${modifier} Z, ${modifier} Y`],
      ['Next, previous (Marks list)', 'Arrow keys'],
      ['Move', 'Arrow keys'],
      ['Move by 10 px', 'Shift Arrow keys'],
      ['Duplicate', `${modifier} D`],
      ['Forward, back', '] ['],
      ['Delete', 'Delete'],
      ['Fit, actual pixels', '0, 1'],
      ['Closer, further', '+ −'],
    ],
  },
  {
    title: 'Keep',
    keys: [
      ['Copy the picture', `${modifier} C`],
      ['Go to Keep; keep', `${modifier} Enter`],
      ['See it before (in Keep)', 'Space, held'],
    ],
  },
];

/** All keys, on “?”. */
export function KeysOverlay() {
  const [open, setOpen] = useState(false);
  useKey('shift+?', () => setOpen(true));
  useKey('?', () => setOpen(true));
  return (
    <Modal
      open={open}
      title="Keys"
      description="Letters act while no field has the focus."
      onClose={() => setOpen(false)}
    >
      <div className="grid grid-cols-2 gap-5">
        {groups.map((group) => (
          <section key={group.title}>
            <h3 className="mb-1 font-name">{group.title}</h3>
            <dl>
              {group.keys.map(([what, keys]) => (
                <div key={what} className="flex justify-between gap-3 border-b border-line py-1">
                  <dt>{what}</dt>
                  <dd>
                    <Key>{keys}</Key>
                    <span className="sr-only">{keys}</span>
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
}
