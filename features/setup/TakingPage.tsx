import { useEffect } from 'react';
import { changeSettings, readSettings, useSettings } from '../settings/settingsStore';
import { Toggle } from '../ui/Toggle';
import { Clips } from './Clips';
import { LookBack } from './LookBack';
import { WebPages } from './WebPages';

/** Countdown, sound and notice, each on or off; and web pages. */
export function TakingPage() {
  const settings = useSettings((s) => s.settings);
  useEffect(() => void readSettings(), []);
  return (
    <div className="max-w-xl">
      <h1 className="mb-1 font-name text-xl">Taking</h1>
      <p className="mb-4 text-soft">
        What Rezzik shows and sounds while it takes. All off leaves no sign but the result.
      </p>
      <div className="divide-y divide-line rounded-[9px] border border-line bg-card [&>*]:px-4 [&>*]:py-2.5">
        <Toggle
          label="Countdown"
          note="Seconds left, in the corner of the source, while a delay runs"
          checked={settings.showCountdown}
          onChange={(showCountdown) => changeSettings({ showCountdown })}
        />
        <Toggle
          label="Sound"
          note="A soft click when the picture is taken"
          checked={settings.sound}
          onChange={(sound) => changeSettings({ sound })}
        />
        <Toggle
          label="Notice"
          note="The name and where it went; trouble is told in any case"
          checked={settings.notice}
          onChange={(notice) => changeSettings({ notice })}
        />
        <Toggle
          label="Thumbnail"
          note="A small picture in the notice"
          checked={settings.thumbnail}
          onChange={(thumbnail) => changeSettings({ thumbnail })}
        />
      </div>
      <LookBack />
      <Clips />
      <WebPages />
    </div>
  );
}
