import { ArrowDown, ArrowUp, Pencil, Play, Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Routine } from '@/core/contracts/way';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { keyLabel } from '../keys/useAction';
import { navigate } from '../thread/navigate';
import {
  describeWay,
  readRoutines,
  runRoutine,
  sourceLabel,
  useRoutines,
} from '../take/routineStore';
import { readSettings, useSettings } from '../settings/settingsStore';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { Key } from '../ui/Key';
import { Problem } from '../ui/Problem';
import { RoutineForm } from './RoutineForm';
import { Unconfirmed } from './Unconfirmed';

/** Making, changing and ordering the named ways of taking. */
export function RoutinesPage() {
  const routines = useRoutines((s) => s.routines);
  const unconfirmed = useRoutines((s) => s.unconfirmed);
  const way = useSettings((s) => s.settings.way);
  // Before the last way is known a new routine would begin with the first one.
  const isKnown = useSettings((s) => s.read);
  const [open, setOpen] = useState<Routine | 'new' | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    void readSettings();
    void readRoutines().catch((error: unknown) => setProblem(messageOf(error)));
  }, []);
  const change = async (act: () => Promise<unknown>) => {
    try {
      setProblem(null);
      await act();
      await readRoutines();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const move = (index: number, by: number) => {
    const ids = routines.map((r) => r.id);
    const [id] = ids.splice(index, 1);
    if (id) ids.splice(index + by, 0, id);
    void change(() => api.orderRoutines(ids));
  };
  return (
    <div className="max-w-2xl">
      <div className="mb-4 flex items-start justify-between gap-4">
        <div>
          <h1 className="mb-1 font-name text-xl">Routines</h1>
          <p className="text-soft">
            A routine takes the same way each time, whatever is set on Take. A new one starts from
            the last way of taking.
          </p>
        </div>
        <Button
          icon={<Plus size={16} strokeWidth={1.75} />}
          disabled={!isKnown}
          onClick={() => setOpen('new')}
        >
          New routine
        </Button>
      </div>
      {problem && <Problem>{problem}</Problem>}
      {unconfirmed.length > 0 && (
        <ul aria-label="Not confirmed" className="mb-4 flex flex-col gap-2">
          {unconfirmed.map((routine) => (
            <li key={routine.id} className="rounded-[9px] border border-line bg-card px-4 py-2">
              <div className="flex items-center gap-2">
                <span className="min-w-0 grow">
                  <span className="block truncate font-bold">{routine.name}</span>
                  <span className="block text-[13px] text-soft">
                    {sourceLabel(routine.way)} · {describeWay(routine.way)}
                  </span>
                </span>
                {routine.systemKey && <Key>{keyLabel(routine.systemKey)}</Key>}
                {routine.key && <Key>{keyLabel(routine.key)}</Key>}
                <IconButton
                  label={`Remove ${routine.name}`}
                  onClick={() => void change(() => api.removeRoutine(routine.id))}
                >
                  <Trash2 size={16} strokeWidth={1.75} />
                </IconButton>
              </div>
              <Unconfirmed
                name={routine.name}
                words="It takes nothing before you have looked what it does."
                onConfirm={() =>
                  void change(() => api.changeRoutine(routine.id, { confirmed: true }))
                }
              />
            </li>
          ))}
        </ul>
      )}
      {routines.length === 0 && <p className="text-soft">No routine yet.</p>}
      <ul className="divide-y divide-line rounded-[9px] border border-line bg-card empty:hidden">
        {routines.map((routine, i) => (
          <li key={routine.id} className="flex items-center gap-2 px-4 py-2">
            <span className="min-w-0 grow">
              <span className="block truncate font-bold">{routine.name}</span>
              <span className="block truncate text-[13px] text-soft">
                {sourceLabel(routine.way)} · {describeWay(routine.way)}
              </span>
            </span>
            {routine.systemKeyProblem && (
              <span className="text-[13px] text-brick">{routine.systemKeyProblem}</span>
            )}
            {routine.systemKey && <Key>{keyLabel(routine.systemKey)}</Key>}
            {routine.key && <Key>{keyLabel(routine.key)}</Key>}
            <IconButton
              label={`Run ${routine.name}`}
              onClick={() => {
                navigate('/take');
                setTimeout(() => runRoutine(routine), 0);
              }}
            >
              <Play size={16} strokeWidth={1.75} />
            </IconButton>
            <IconButton
              label={`Move ${routine.name} up`}
              disabled={i === 0}
              onClick={() => move(i, -1)}
            >
              <ArrowUp size={16} strokeWidth={1.75} />
            </IconButton>
            <IconButton
              label={`Move ${routine.name} down`}
              disabled={i === routines.length - 1}
              onClick={() => move(i, 1)}
            >
              <ArrowDown size={16} strokeWidth={1.75} />
            </IconButton>
            <IconButton label={`Edit ${routine.name}`} onClick={() => setOpen(routine)}>
              <Pencil size={16} strokeWidth={1.75} />
            </IconButton>
            <IconButton
              label={`Remove ${routine.name}`}
              onClick={() => void change(() => api.removeRoutine(routine.id))}
            >
              <Trash2 size={16} strokeWidth={1.75} />
            </IconButton>
          </li>
        ))}
      </ul>
      {open && (
        <RoutineForm
          routine={open === 'new' ? null : open}
          way={open === 'new' ? way : open.way}
          onClose={() => setOpen(null)}
          onSaved={() => {
            setOpen(null);
            void change(() => Promise.resolve());
          }}
        />
      )}
    </div>
  );
}
