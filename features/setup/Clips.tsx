import { clipLimits } from '@/core/contracts/clip';
import { changeSettings, useSettings } from '../settings/settingsStore';
import { NumberInput } from '../ui/NumberInput';

/** How long a clip may be. */
export function Clips() {
  const minutes = useSettings((s) => s.settings.clipMinutes);
  return (
    <section className="mt-6">
      <h2 className="font-name text-lg">Clips</h2>
      <p className="mb-2 text-soft">
        A recording ends by itself after so many minutes, and what was recorded opens. One that was
        forgotten does not fill the disk.
      </p>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <NumberInput
          label="Minutes at most"
          value={minutes}
          min={1}
          max={clipLimits.seconds / 60}
          onCommit={(value) => changeSettings({ clipMinutes: Math.round(value) })}
        />
      </div>
    </section>
  );
}
