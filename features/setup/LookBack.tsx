import { changeSettings, useSettings } from '../settings/settingsStore';
import { NumberSetting } from './NumberSetting';

/** What the last seconds of a screen may take up while they are held. */
export function LookBack() {
  const megabytes = useSettings((s) => s.settings.heldMegabytes);
  return (
    <NumberSetting
      title="Look back"
      label="Room for it, MB"
      value={megabytes}
      min={32}
      max={2048}
      onCommit={(value) => changeSettings({ heldMegabytes: Math.round(value) })}
    >
      While “Hold the last 10 s” is on, what was there a moment ago can still be taken. It lies in
      memory only, and goes when holding is switched off, another source is chosen or the desktop
      says that the screen is locked. Where there is no room for ten seconds, it goes back less far,
      and says so.
    </NumberSetting>
  );
}
