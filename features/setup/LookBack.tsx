import { changeSettings, useSettings } from '../settings/settingsStore';
import { NumberInput } from '../ui/NumberInput';

/** What the last seconds of a screen may take up while they are held. */
export function LookBack() {
  const megabytes = useSettings((s) => s.settings.heldMegabytes);
  return (
    <section className="mt-6">
      <h2 className="font-name text-lg">Look back</h2>
      <p className="mb-2 text-soft">
        While “Hold the last 10 s” is on, what was there a moment ago can still be taken. It lies in
        memory only, and goes when holding is switched off, another source is chosen or the desktop
        says that the screen is locked. Where there is no room for ten seconds, it goes back less
        far, and says so.
      </p>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <NumberInput
          label="Room for it, MB"
          value={megabytes}
          min={32}
          max={2048}
          onCommit={(value) => changeSettings({ heldMegabytes: Math.round(value) })}
        />
      </div>
    </section>
  );
}
