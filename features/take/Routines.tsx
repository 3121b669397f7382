import { Plus } from 'lucide-react';
import { useEffect } from 'react';
import type { Routine } from '@/core/contracts/way';
import { keyLabel } from '../keys/useAction';
import { followLink } from '../thread/navigate';
import { Key } from '../ui/Key';
import { Item, LinkItem, Row } from '../ui/Row';
import { describeWay, readRoutines, runRoutine, useRoutines } from './routineStore';
import { useTake } from './takeState';

/** The routines below the live source: one click or key each. */
export function Routines() {
  const routines = useRoutines((s) => s.routines);
  useEffect(() => void readRoutines().catch(() => undefined), []);
  return (
    <Row label="Routines" className="mt-3 flex shrink-0 gap-2 overflow-x-auto p-0.5">
      {routines.map((routine) => (
        <RoutineButton key={routine.id} routine={routine} />
      ))}
      <LinkItem>
        <a
          href="/setup/routines"
          onClick={followLink}
          className="flex h-[52px] shrink-0 items-center gap-2 rounded-[8px] border border-dashed border-edge px-4 text-soft hover:bg-tint"
        >
          <Plus size={16} strokeWidth={1.75} aria-hidden /> New routine
        </a>
      </LinkItem>
    </Row>
  );
}

function RoutineButton({ routine }: { routine: Routine }) {
  const { name, key, way } = routine;
  const ready = useTake((s) => s.phase.name === 'ready');
  return (
    <Item>
      <button
        type="button"
        disabled={!ready}
        onClick={() => runRoutine(routine)}
        aria-keyshortcuts={key ?? undefined}
        className="flex h-[52px] max-w-[270px] min-w-[150px] shrink-0 items-center gap-3 rounded-[8px] border border-line bg-card px-3 text-left hover:bg-tint"
      >
        <span className="min-w-0 grow">
          <span className="block truncate font-bold">{name}</span>
          <span className="block truncate text-[13px] text-soft">{describeWay(way)}</span>
        </span>
        {key && <Key>{keyLabel(key)}</Key>}
      </button>
    </Item>
  );
}
