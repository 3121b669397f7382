import { RotateCcw } from 'lucide-react';
import { useEffect, useState, type KeyboardEvent } from 'react';
import { allActions, conflicts, fixedKeys, keyOf, type ActionFacts } from '../keys/actions';
import { keyFromEvent } from '../keys/press';
import { keyLabel } from '../keys/useAction';
import { changeSettings, readSettings, useSettings } from '../settings/settingsStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';

/** Every action with its key, changed by pressing another one. */
export function KeysPage() {
  const own = useSettings((s) => s.settings.keys);
  const [waiting, setWaiting] = useState<string | null>(null);
  const [said, setSaid] = useState<{ action: string; words: string } | null>(null);
  useEffect(() => void readSettings(), []);
  const groups = [...new Set(allActions.map((a) => a.group))];
  const set = (keys: Record<string, string>) => changeSettings({ keys });
  const pressed = (action: ActionFacts, event: KeyboardEvent) => {
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') {
      setWaiting(null);
      return;
    }
    const key = keyFromEvent(event);
    if (key === null) return;
    setWaiting(null);
    const taken = conflicts(action.name, key, own);
    if (fixedKeys.includes(key)) {
      setSaid({
        action: action.name,
        words: `${keyLabel(key)} moves and leaves things everywhere; choose another key.`,
      });
    } else if (taken[0]) {
      setSaid({
        action: action.name,
        words: `${keyLabel(key)} is already the key of “${taken[0].label}”. Nothing was changed.`,
      });
    } else {
      setSaid(null);
      set({ ...own, [action.name]: key });
    }
  };
  return (
    <div className="max-w-2xl">
      <div className="mb-4 flex items-start justify-between gap-4">
        <div>
          <h1 className="mb-1 font-name text-xl">Keys</h1>
          <p className="text-soft">
            Press a key’s button, then the new key. Esc leaves it as it was. Single keys rest while
            a field has the focus.
          </p>
        </div>
        <Button
          icon={<RotateCcw size={16} strokeWidth={1.75} />}
          disabled={Object.keys(own).length === 0}
          onClick={() => set({})}
        >
          All as at first
        </Button>
      </div>
      {groups.map((group) => (
        <section key={group} aria-label={group} className="mb-5">
          <h2 className="mb-1 font-bold">{group}</h2>
          <ul className="divide-y divide-line rounded-[9px] border border-line bg-card">
            {allActions
              .filter((a) => a.group === group)
              .map((action) => (
                <li key={action.name} className="flex flex-wrap items-center gap-3 px-4 py-1.5">
                  <span className="grow">{action.label}</span>
                  {own[action.name] !== undefined && (
                    <IconButton
                      label={`Put back ${action.label}`}
                      onClick={() => {
                        const { [action.name]: _, ...rest } = own;
                        set(rest);
                      }}
                    >
                      <RotateCcw size={16} strokeWidth={1.75} />
                    </IconButton>
                  )}
                  <button
                    type="button"
                    aria-label={`Key of ${action.label}: ${waiting === action.name ? 'press a key' : keyLabel(keyOf(action.name, own))}`}
                    onClick={() => setWaiting(action.name)}
                    onBlur={() => setWaiting((w) => (w === action.name ? null : w))}
                    onKeyDown={(event) => {
                      if (waiting === action.name) pressed(action, event);
                    }}
                    className={classes(
                      'min-h-8 min-w-24 rounded-[6px] border px-2 font-measure text-[13px]',
                      waiting === action.name ? 'border-petrol bg-tint' : 'border-edge',
                    )}
                  >
                    {waiting === action.name ? 'press a key' : keyLabel(keyOf(action.name, own))}
                  </button>
                  {said?.action === action.name && (
                    <p role="alert" className="w-full text-[13px] text-brick">
                      {said.words}
                    </p>
                  )}
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
