import { useState } from 'react';
import { addressProblem } from '@/core/contracts/page';
import { limits } from '@/core/values/limits';
import {
  chosenKind,
  stillKinds,
  takenFrom,
  type Kind,
  type Routine,
  type StillKind,
  type TakenFrom,
  type Way,
} from '@/core/contracts/way';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { clashesOf, fixedKeys } from '../keys/actions';
import { keyFromEvent } from '../keys/press';
import { keyLabel } from '../keys/useAction';
import { kinds, recordsLabels } from '../take/kinds';
import { useSettings } from '../settings/settingsStore';
import { sources } from '../take/sources/list';
import { Leaves } from '../take/Leaves';
import { ThenSteps } from '../take/Then';
import { withTags } from '../take/withTags';
import { TagsField } from '../tags/TagsField';
import { Button } from '../ui/Button';
import { FormRow, fieldLook } from '../ui/FormRow';
import { Modal } from '../ui/Modal';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Toggle } from '../ui/Toggle';

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
  const displays = sources[way.source].displays();
  const chosen = chosenKind(way);
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
        <FormRow label="What">
          <select
            value={way.kind}
            onChange={(event) => change({ kind: event.target.value as Kind })}
            className={fieldLook}
          >
            {kinds
              .filter(({ name }) => name !== 'series')
              .map((k) => (
                <option key={k.name} value={k.name}>
                  {k.label}
                </option>
              ))}
          </select>
        </FormRow>
        <FormRow label="From where">
          <select
            value={way.source}
            onChange={(event) =>
              change({ source: event.target.value as TakenFrom, display: 'current' })
            }
            className={fieldLook}
          >
            {takenFrom.map((source) => (
              <option key={source} value={source}>
                {sources[source].label}
              </option>
            ))}
          </select>
        </FormRow>
        {way.source === 'web' && (
          <FormRow label="Address">
            <input
              value={way.page.address}
              inputMode="url"
              spellCheck={false}
              onChange={(event) => change({ page: { ...way.page, address: event.target.value } })}
              className={fieldLook}
            />
          </FormRow>
        )}
        {way.kind === 'clip' && (
          <FormRow label="What of it">
            <select
              value={way.records}
              onChange={(event) => change({ records: event.target.value as StillKind })}
              className={fieldLook}
            >
              {stillKinds.map((name) => (
                <option key={name} value={name}>
                  {recordsLabels[name]}
                </option>
              ))}
            </select>
          </FormRow>
        )}
        {displays.length > 1 && chosen !== 'window' && (
          <FormRow label="Display">
            <select
              value={way.display}
              onChange={(event) => change({ display: event.target.value })}
              className={fieldLook}
            >
              <option value="current">The one in use</option>
              {displays.map(({ id, label }) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </select>
          </FormRow>
        )}
        {chosen === 'window' && (
          <>
            <Toggle
              label="The one in use, at once"
              checked={way.inUse}
              onChange={(inUse) => change({ inUse })}
            />
            <Toggle
              label="With its border"
              checked={way.border}
              onChange={(border) => change({ border })}
            />
          </>
        )}
        {(chosen === 'region' || chosen === 'shape') && (
          <Toggle
            label="Letting go takes at once"
            checked={way.atOnce}
            onChange={(atOnce) => change({ atOnce })}
          />
        )}
        {chosen === 'region' && (
          <Toggle
            label="Begins with the last place"
            checked={way.fromLast}
            onChange={(fromLast) => change({ fromLast })}
          />
        )}
        <NumberInput
          label="Delay in seconds"
          value={way.delay}
          min={0}
          max={limits.delay}
          onCommit={(delay) => change({ delay })}
        />
        <Toggle
          label="Pointer as a piece"
          checked={way.pointer}
          onChange={(pointer) => change({ pointer })}
        />
        <div>
          <h3 className="mb-1.5 font-bold">Then</h3>
          <ThenSteps then={way.then} ask={way.ask} onChange={change} />
          <div className="mt-2 flex items-center gap-3">
            <span className="shrink-0">Tags it gets</span>
            <TagsField
              label="Tags it gets"
              names={way.then.find((step) => step.do === 'tag')?.tags ?? []}
              onChange={(tags) => change({ then: withTags(way.then, tags) })}
            />
          </div>
          <Leaves {...way} onChange={change} />
        </div>
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
