import { useState } from 'react';
import { addressProblem } from '@/core/contracts/page';
import type { Routine, Way } from '@/core/contracts/way';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { clashesOf, fixedKeys } from '../keys/actions';
import { keyFromEvent } from '../keys/press';
import { keyLabel } from '../keys/useAction';
import { useSettings } from '../settings/settingsStore';
import { Button } from '../ui/Button';
import { FormRow, fieldLook } from '../ui/FormRow';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { RoutineWay } from './RoutineWay';

interface Props {
  routine: Routine | null;
  way: Way;
  onClose: () => void;
  onSaved: () => void;
}

/** One routine: its name, its key, and everything it takes by. */
export function RoutineForm({ routine, way: first, onClose, onSaved }: Props) {
  const [name, setName] = useState(routine?.name ?? '');
  const [key, setKey] = useState(routine?.key ?? null);
  const [systemKey, setSystemKey] = useState(routine?.systemKey ?? null);
  const [way, setWay] = useState(first);
  const [problem, setProblem] = useState<string | null>(null);
  const own = useSettings((s) => s.settings.keys);
  const change = (patch: Partial<Way>) => setWay((w) => ({ ...w, ...patch }));
  const save = async () => {
    try {
      if (name.trim() === '') throw new Error('Give the routine a name.');
      const noPage = way.source === 'web' && addressProblem(way.page.address);
      if (noPage) throw new Error(noPage);
      const input = { name: name.trim(), key, systemKey, way };
      await (routine ? api.changeRoutine(routine.id, input) : api.addRoutine(input));
      onSaved();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const press = (event: React.KeyboardEvent, system: boolean) => {
    if (event.key === 'Tab' || event.key === 'Escape') return;
    event.preventDefault();
    const set = system ? setSystemKey : setKey;
    if (event.key === 'Backspace' || event.key === 'Delete') {
      set(null);
      return;
    }
    const pressed = keyFromEvent(event);
    if (!pressed) return;
    if (system) {
      set(pressed);
      return;
    }
    const fixedKey = fixedKeys.includes(pressed);
    setProblem(fixedKey ? `${keyLabel(pressed)} leads out of things or moves them.` : null);
    if (!fixedKey) setKey(pressed);
  };
  const clashes = key ? clashesOf(key, own) : [];
  return (
    <Modal open title={routine ? `Edit ${routine.name}` : 'New routine'} onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <FormRow label="Name">
          <input
            value={name}
            maxLength={80}
            autoFocus
            onChange={(event) => setName(event.target.value)}
            className={fieldLook}
          />
        </FormRow>
        <FormRow label="Key">
          <input
            value={key ? keyLabel(key) : ''}
            placeholder="press a key; Delete for none"
            onKeyDown={(event) => press(event, false)}
            onChange={() => undefined}
            className={fieldLook}
          />
        </FormRow>
        {clashes.length > 0 && key && (
          <p role="status" className="ml-[118px] text-[13px] text-brick">
            {clashes.map(({ view, label }) => `In ${view}, ${keyLabel(key)} is “${label}”. `)}
            There that comes first, and the routine does not start.
          </p>
        )}
        {way.source === 'display' && (
          <FormRow label="System key">
            <input
              value={systemKey ? keyLabel(systemKey) : ''}
              placeholder="works while Rezzik is out of sight"
              onKeyDown={(event) => press(event, true)}
              onChange={() => undefined}
              className={fieldLook}
            />
          </FormRow>
        )}
        <RoutineWay {...{ way, change }} />
        {problem && <Problem>{problem}</Problem>}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button look="next" type="submit">
            {routine ? 'Save the routine' : 'Make the routine'}
          </Button>
        </div>
      </form>
    </Modal>
  );
}
