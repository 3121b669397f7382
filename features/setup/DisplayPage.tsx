import { useEffect } from 'react';
import { api } from '../api/client';
import { changeSettings, readSettings, useSettings } from '../settings/settingsStore';
import { Toggle } from '../ui/Toggle';
import { useAnswer } from '../api/useAnswer';
import { Problem } from '../ui/Problem';

/** Whether the screen of this computer may be read, and what Rezzik finds there. */
export function DisplayPage() {
  const { displayAllowed, partsAsked, inUseIs } = useSettings((s) => s.settings);
  useEffect(() => void readSettings(), []);
  // The switch has to reach the server first.
  const { answer, problem } = useAnswer(api.display, String(displayAllowed), { after: 300 });
  return (
    <div className="max-w-xl">
      <h1 className="mb-1 font-name text-xl">This computer</h1>
      <p className="mb-4 text-soft">
        Rezzik can take the screen of the computer it runs on. It reads it only when you take, and
        only for a browser on this computer.
      </p>
      <div className="divide-y divide-line rounded-[9px] border border-line bg-card [&>*]:px-4 [&>*]:py-2.5">
        <Toggle
          label="Read this computer’s screen"
          note="Also lets takes be copied while Rezzik is out of sight"
          checked={displayAllowed}
          onChange={(on) => changeSettings({ displayAllowed: on })}
        />
        <Toggle
          label="Ask programs what the parts of their windows are"
          note="Part then knows buttons, fields and rows by name, of programs that tell. They are asked only while a part is taken"
          checked={partsAsked}
          onChange={(on) => changeSettings({ partsAsked: on })}
        />
        <Toggle
          label="The window in use is the one under the pointer"
          note="Off: the one that has the keyboard"
          checked={inUseIs === 'pointer'}
          onChange={(on) => changeSettings({ inUseIs: on ? 'pointer' : 'focused' })}
        />
      </div>
      {problem && <Problem>{problem}</Problem>}
      {displayAllowed && answer && (
        <p role="status" className="mt-4">
          {answer.available
            ? `${answer.monitors.map((m) => `${m.name} (${m.width} × ${m.height})`).join(', ')} · ${answer.windows.length === 1 ? 'one window' : `${answer.windows.length} windows`}. ${answer.reason ?? ''}`
            : answer.reason}
        </p>
      )}
    </div>
  );
}
