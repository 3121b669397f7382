import { useState } from 'react';
import { api, thumbnailUrl } from '../../api/client';
import { useAnswer } from '../../api/useAnswer';
import { changeSettings, useSettings } from '../../settings/settingsStore';
import { formatBytes, formatCount, formatDay } from '../../ui/format';
import { NumberInput } from '../../ui/NumberInput';
import { Problem } from '../../ui/Problem';
import { Toggle } from '../../ui/Toggle';

const FIRST = 180;

/** What is put into the Bin by itself, seen before it is switched on. */
export function UnkeptRule() {
  const days = useSettings((s) => s.settings.unkeptDays);
  const binDays = useSettings((s) => s.settings.binDays);
  const [wanted, setWanted] = useState(FIRST);
  const after = days ?? wanted;
  const { answer, problem } = useAnswer((signal) => api.unkept(after, signal), `${after} ${days}`, {
    keep: true,
  });
  const set = (next: number) => {
    const whole = Math.round(next);
    setWanted(whole);
    if (days !== null) changeSettings({ unkeptDays: whole });
  };
  return (
    <section aria-label="Rule" className="rounded-[9px] border border-line bg-card px-4 py-3">
      <h2 className="mb-1 font-name text-lg">What nobody kept</h2>
      <Toggle
        label={`Into the Bin after ${formatCount(after)} days`}
        note="Shots that were never kept, sent, linked or tagged and are in no guide, and that nobody has changed since"
        checked={days !== null}
        onChange={(on) => changeSettings({ unkeptDays: on ? after : null })}
      />
      <div className="mt-1 flex">
        <NumberInput label="Days" value={after} min={1} max={3650} onCommit={set} />
      </div>
      {problem && <Problem>{problem}</Problem>}
      {answer && (
        <p role="status" className="mt-2">
          {answer.count === 0
            ? 'None now.'
            : `${formatCount(answer.count)} now, ${formatBytes(answer.bytes)} of pictures.`}{' '}
          <span className="text-soft">
            {binDays === null
              ? 'They stay in the Bin until you delete them.'
              : `After ${formatCount(binDays)} more days in the Bin they are deleted for good.`}
          </span>
        </p>
      )}
      <ul aria-label="The oldest of them" className="mt-2 flex flex-wrap gap-2 empty:hidden">
        {answer?.shots.map((shot) => (
          <li key={shot.id} className="w-24">
            <a href={`/shots/${shot.id}`} className="block">
              <img
                src={thumbnailUrl(shot)}
                alt=""
                className="h-16 w-24 rounded-[6px] border border-line object-cover"
              />
              <span className="block truncate text-[13px]">{shot.title}</span>
              <span className="block truncate text-[13px] text-soft">
                {formatDay(shot.takenAt)}
              </span>
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
