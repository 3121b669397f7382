import { Pause, Play, Square, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { clockOf } from '@/core/clip/clock';
import { useKey } from '../../keys/useKey';
import { useSettings } from '../../settings/settingsStore';
import { Button } from '../../ui/Button';
import { formatBytes } from '../../ui/format';
import { endRecording, togglePause } from './record';
import { recordedMs, useRecording } from './state';

const icon = { size: 16, strokeWidth: 2 };

/** How long it goes already, told anew some times a second. */
function useRecordedMs(): number {
  const now = useRecording((s) => s.now);
  const [, again] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => again((n) => n + 1), 200);
    return () => clearInterval(timer);
  }, []);
  return now ? recordedMs(now) : 0;
}

/** In Take, while something is recorded: how it stands, and what can be done. */
export function Recording() {
  const now = useRecording((s) => s.now);
  const ms = useRecordedMs();
  const most = useSettings((s) => s.settings.clipMinutes);
  // On the practice desk a blank is typed.
  const pause = () => document.activeElement?.role !== 'application' && void togglePause();
  useKey('space', pause, { enabled: now !== null });
  useKey('escape', () => void endRecording({ bin: true }), { enabled: now !== null });
  if (!now) return null;
  const paused = now.since === null;
  return (
    <section
      aria-label="Recording"
      className="mt-3 flex flex-wrap items-center gap-3 rounded-[9px] border-2 border-brick bg-card p-3"
    >
      <p role="status" className="min-w-0 grow">
        <span className="font-bold text-brick">
          {now.ending ? 'Making the clip ready …' : paused ? 'Paused' : 'Recording'}
        </span>{' '}
        <span className="font-measure">
          {clockOf(ms / 1000)} of {clockOf(60 * most)}
        </span>{' '}
        <span className="text-[13px] text-soft">
          {now.width} × {now.height} px · {formatBytes(now.bytes)} on the disk
          {now.room !== null && `, room for ${formatBytes(now.room)} more`}
          {now.sound === 'heard' && ' · with sound'}
          {now.sound === 'silent' &&
            ' · nothing is heard: look at the microphone, or at what plays'}
          {now.away && ' · Rezzik’s server does not answer: what comes is held here'}
        </span>
      </p>
      <Button
        hint="Space"
        icon={paused ? <Play {...icon} /> : <Pause {...icon} />}
        disabled={now.ending}
        onClick={() => void togglePause()}
      >
        {paused ? 'Go on' : 'Pause'}
      </Button>
      <Button
        hint="Esc"
        icon={<Trash2 {...icon} />}
        disabled={now.ending}
        onClick={() => void endRecording({ bin: true })}
      >
        To the Bin
      </Button>
    </section>
  );
}

/** In every view but Take, while something is recorded: that it is, and the way to end it. */
export function RecordingSign() {
  const now = useRecording((s) => s.now);
  const ms = useRecordedMs();
  if (!now) return null;
  return (
    <div role="group" aria-label="Recording" className="flex shrink-0 items-center gap-2">
      <span className="font-bold text-brick">
        {now.since === null ? 'Paused' : 'Recording'}{' '}
        <span className="font-measure font-normal">{clockOf(ms / 1000)}</span>
      </span>
      <Button
        icon={<Square size={14} strokeWidth={2} fill="currentColor" />}
        disabled={now.ending}
        onClick={() => void endRecording()}
      >
        End the clip
      </Button>
    </div>
  );
}
