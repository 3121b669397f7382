import { useState } from 'react';
import { changeSettings, useSettings } from '../settings/settingsStore';
import { Confirm } from '../ui/Confirm';

const rules: readonly [string, string][] = [
  ['', 'never by itself'],
  ['7', 'after 7 days in the bin'],
  ['30', 'after 30 days in the bin'],
  ['90', 'after 90 days in the bin'],
];

/** How long what lies in the bin stays there. */
export function BinBar() {
  const days = useSettings((s) => s.settings.binDays);
  const [asking, setAsking] = useState<number | null>(null);
  const value = days === null ? '' : String(days);
  const known = rules.some(([rule]) => rule === value);
  const choose = (rule: string) => {
    const next = rule === '' ? null : Number(rule);
    // What stays for longer loses nothing.
    if (next === null || (days !== null && next >= days)) changeSettings({ binDays: next });
    else setAsking(next);
  };
  return (
    <>
      <label className="flex items-center gap-2 border-b border-line bg-card px-5 py-2">
        Deleted for good
        <select
          value={value}
          onChange={(event) => choose(event.target.value)}
          className="h-8 rounded-[6px] border border-edge bg-card px-2"
        >
          {!known && <option value={value}>after {value} days in the bin</option>}
          {rules.map(([rule, words]) => (
            <option key={rule} value={rule}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <Confirm
        open={asking !== null}
        title={`Delete for good after ${asking ?? 0} days?`}
        description="What has lain in the bin for longer is erased within the hour and cannot come back; everything else once its time is up. Files kept in folders stay where they are."
        verb="Delete after that"
        onYes={() => changeSettings({ binDays: asking })}
        onClose={() => setAsking(null)}
      />
    </>
  );
}
