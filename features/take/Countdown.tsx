import { useEffect, useState } from 'react';
import { useSettings } from '../settings/settingsStore';
import { useTake } from './takeState';

/** Seconds left, out of the way in a corner: the desk stays usable. Can be hidden in Setup. */
export function Countdown() {
  const phase = useTake((s) => s.phase);
  const shown = useSettings((s) => s.settings.showCountdown);
  const until = phase.name === 'counting' ? phase.until : null;
  const [left, setLeft] = useState(0);
  useEffect(() => {
    if (until === null) return;
    const tell = () => setLeft(Math.max(0, Math.ceil((until - Date.now()) / 1000)));
    tell();
    const timer = setInterval(tell, 100);
    return () => clearInterval(timer);
  }, [until]);
  if (until === null || !shown) return null;
  return (
    <div
      role="timer"
      aria-live="assertive"
      className="pointer-events-none absolute top-4 right-4 grid h-14 min-w-14 place-items-center rounded-[9px] bg-ink px-3 font-measure text-2xl text-on-ink shadow-raised"
    >
      {left}
      <span className="sr-only">seconds until the picture is taken</span>
    </div>
  );
}
