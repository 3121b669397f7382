import { changeSettings, useSettings } from '../take/settingsStore';

const rules: readonly [string, string][] = [
  ['', 'never by itself'],
  ['7', 'after 7 days in the bin'],
  ['30', 'after 30 days in the bin'],
  ['90', 'after 90 days in the bin'],
];

/** How long what lies in the bin stays there. */
export function BinBar() {
  const days = useSettings((s) => s.settings.binDays);
  const value = days === null ? '' : String(days);
  const known = rules.some(([rule]) => rule === value);
  return (
    <label className="flex items-center gap-2 border-b border-line bg-card px-5 py-2">
      Deleted for good
      <select
        value={value}
        onChange={({ target }) =>
          changeSettings({ binDays: target.value === '' ? null : Number(target.value) })
        }
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
  );
}
