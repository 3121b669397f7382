import { Aperture, CircleDot, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import type { ShotSummary } from '@/core/contracts/shot';
import { api, thumbnailUrl } from '../api/client';
import { useOutbox } from '../outbox/outbox';
import { navigate } from '../thread/navigate';
import { useBack } from './back/backState';
import { lookBack } from './back/HoldingSign';
import { kinds } from './kinds';
import { describeWay, readRoutines, runRoutine, useRoutines } from './routineStore';
import { changeWay, useSettings } from '../settings/settingsStore';
import { useTake } from './takeState';
import { useRecording } from './clip/state';
import { cancelTake, takeOrEnd } from './takeStore';
import { Button } from '../ui/Button';
import { useSmall } from '../small/smallWindow';

/** The small window's content, drawn from the page that opened it. */
export function SmallControl() {
  const small = useSmall((s) => s.window);
  const shot = useSmall((s) => s.shot);
  if (!small) return null;
  return createPortal(
    <main className="h-full bg-paper p-3">
      {shot ? (
        <img src={shot.url} alt={shot.title} className="size-full object-contain" />
      ) : (
        <Control />
      )}
    </main>,
    small.document.body,
  );
}

/** Where takes are shown: the take itself runs in the page. */
function take(act: () => void): void {
  navigate('/take');
  // Take has to be there to show what is chosen.
  setTimeout(() => {
    window.focus();
    act();
  }, 0);
}

function Control() {
  const way = useSettings((s) => s.settings.way);
  const routines = useRoutines((s) => s.routines);
  const phase = useTake((s) => s.phase);
  const on = useBack((s) => s.on);
  const recording = useRecording((s) => s.now);
  const endsHere = recording !== null && way.kind === 'clip';
  const [routine, setRoutine] = useState('');
  useEffect(() => void readRoutines().catch(() => undefined), []);
  const chosen = routines.find((r) => r.id === routine);
  const used = chosen?.way ?? way;
  return (
    <div className="flex h-full flex-col gap-2">
      <label className="flex flex-col gap-1">
        <span className="font-bold">Takes by</span>
        <select value={routine} onChange={(e) => setRoutine(e.target.value)} className={field}>
          <option value="">the last way</option>
          {routines.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {!chosen && (
        <div className="flex gap-2">
          <select
            aria-label="What to take"
            value={way.kind}
            onChange={(e) => {
              const kind = kinds.find((k) => k.name === e.target.value);
              if (kind) changeWay({ kind: kind.name });
            }}
            className={field}
          >
            {kinds.map(({ name, label }) => (
              <option key={name} value={name}>
                {label}
              </option>
            ))}
          </select>
          <select
            aria-label="Delay"
            value={way.delay}
            onChange={(e) => changeWay({ delay: Number(e.target.value) })}
            className={field}
          >
            {[...new Set([0, 1, 2, 3, 5, 10, way.delay])].map((s) => (
              <option key={s} value={s}>
                {s} s
              </option>
            ))}
          </select>
        </div>
      )}
      <p className="truncate text-[13px] text-soft">{describeWay(used)}</p>
      {phase.name === 'ready' || phase.name === 'leaving' ? (
        <Button
          look="next"
          className="h-11"
          icon={<Aperture size={18} strokeWidth={1.75} />}
          disabled={recording?.ending}
          onClick={() => take(() => (chosen && !recording ? runRoutine(chosen) : takeOrEnd()))}
        >
          {endsHere ? 'End the clip' : 'Take'}
        </Button>
      ) : (
        <Button className="h-11" icon={<X size={18} strokeWidth={1.75} />} onClick={cancelTake}>
          {phase.name === 'counting' ? <Left until={phase.until} /> : 'Stop this take'}
        </Button>
      )}
      {on && (
        <Button
          icon={<CircleDot size={16} strokeWidth={2} className="text-brick" />}
          onClick={() => take(lookBack)}
        >
          Held: look back
        </Button>
      )}
      <LastShot />
    </div>
  );
}

const field = 'min-h-8 min-w-0 grow rounded-[6px] border border-edge bg-card px-2';

function Left({ until }: { until: number }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, []);
  return <>Stop · {Math.max(0, Math.ceil((until - now) / 1000))} s left</>;
}

function LastShot() {
  const count = useOutbox((s) => s.storedCount);
  const [shot, setShot] = useState<ShotSummary>();
  useEffect(() => {
    let current = true;
    void api
      .shots({ limit: 1 })
      .then(({ shots }) => current && setShot(shots[0]))
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, [count]);
  if (!shot) return null;
  return (
    <button
      type="button"
      onClick={() => {
        navigate(`/shots/${shot.id}`);
        window.focus();
      }}
      className="flex min-h-0 items-center gap-2 rounded-[6px] border border-line bg-card p-1 text-left"
    >
      <img src={thumbnailUrl(shot)} alt="" className="h-12 w-20 rounded-[4px] object-cover" />
      <span className="min-w-0">
        <span className="block text-[13px] text-soft">Last taken</span>
        <span className="block truncate">{shot.title}</span>
      </span>
    </button>
  );
}
