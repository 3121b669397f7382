import { useState } from 'react';
import { settingsPatchSchema } from '@/core/contracts/settings';
import { leaveByKey } from '../../keys/focus';
import { changeSettings, useSettings } from '../../settings/settingsStore';
import { Problem } from '../../ui/Problem';

/** Who messages are from. */
export function From() {
  const from = useSettings((s) => s.settings.mailFrom);
  const [problem, setProblem] = useState<string | null>(null);
  const commit = (typed: string) => {
    const mailFrom = typed.trim();
    if (mailFrom === from) return setProblem(null);
    if (!settingsPatchSchema.safeParse({ mailFrom }).success) {
      return setProblem(`“${mailFrom}” is no address. Messages stay as they were.`);
    }
    setProblem(null);
    changeSettings({ mailFrom });
  };
  return (
    <section aria-label="Messages">
      <h2 className="mb-2 font-name text-lg">Messages</h2>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <label className="flex flex-wrap items-center justify-between gap-2 text-[13px] text-soft">
          Your address, from which messages are
          <input
            key={from}
            type="email"
            defaultValue={from}
            maxLength={254}
            placeholder="left to the mail program"
            onBlur={(event) => commit(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Escape') event.currentTarget.value = from;
              leaveByKey(event);
            }}
            className="h-8 w-72 rounded-[6px] border border-edge bg-card px-2 text-ink"
          />
        </label>
        {problem && <Problem>{problem}</Problem>}
      </div>
    </section>
  );
}
