import { labelOf, partOrder, type Surround } from '@/core/finish/surround/surround';
import { captionFields } from '@/core/finish/surround/fields';
import { classes } from '../../ui/classes';
import { Toggle } from '../../ui/Toggle';
import { switchPart } from '../fit/surrounding';
import { useDocument } from '../session/document';
import { useTool } from '../session/tool';
import { update } from '../session/session';
import { settingsOf } from '../strip/surroundItems';

const NONE: Surround = {};

/** Everything that can be around the picture, while Surround is in hand. */
export function AroundIt() {
  const isShown = useTool((s) => s.tool === 'finish' && s.finishing === 'surround');
  const surround = useDocument((s) => s.history.document.finish?.surround) ?? NONE;
  const part = useTool((s) => s.part);
  if (!isShown) return null;
  return (
    <section aria-label="Around it">
      <h2 className="mb-2 font-name text-base">Around it</h2>
      <ul className="rounded-[8px] border border-line bg-card">
        {partOrder.map((name) => (
          <li
            key={name}
            className={classes(
              'border-b border-line px-2.5 last:border-b-0',
              name === part && 'bg-tint',
            )}
          >
            <div className="flex items-center">
              <button
                type="button"
                aria-pressed={name === part}
                className="grow py-1 text-left font-bold"
                onClick={() => update({ part: name })}
              >
                {labelOf(name)}
              </button>
              <Toggle
                label={<span className="sr-only">With {labelOf(name).toLowerCase()}</span>}
                checked={surround[name] !== undefined}
                onChange={(on) => {
                  update({ part: name });
                  switchPart(name, on);
                }}
              />
            </div>
            {name === part && surround[name] !== undefined && (
              <div className="flex flex-col items-start gap-2 pt-1 pb-2.5">
                {settingsOf(name, surround).map(({ key, node }) => (
                  <div key={key} className="max-w-full">
                    {node}
                  </div>
                ))}
                {name === 'caption' && (
                  <p className="text-[13px] text-soft">
                    Shift Enter begins a line. Fields:{' '}
                    {captionFields.map((field) => `{${field}}`).join(' ')}
                  </p>
                )}
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
