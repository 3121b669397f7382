import { clipLimits } from '@/core/contracts/clip';
import { changeSettings, useSettings } from '../settings/settingsStore';
import { NumberSetting } from './NumberSetting';

/** How long a clip may be. */
export function Clips() {
  const minutes = useSettings((s) => s.settings.clipMinutes);
  return (
    <NumberSetting
      title="Clips"
      label="Minutes at most"
      value={minutes}
      min={1}
      max={clipLimits.seconds / 60}
      onCommit={(value) => changeSettings({ clipMinutes: Math.round(value) })}
    >
      A recording ends by itself after so many minutes, and what was recorded opens. One that was
      forgotten does not fill the disk.
    </NumberSetting>
  );
}
