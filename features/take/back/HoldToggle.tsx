import { useSettings } from '../../settings/settingsStore';
import { Problem } from '../../ui/Problem';
import { Toggle } from '../../ui/Toggle';
import { formatBytes } from '../../ui/format';
import type { HoldingFacts } from '../sources/contract';
import { useBack } from './backState';
import { startHolding, stopHolding } from './hold';

function noteOf(facts: HoldingFacts | null): string {
  if (!facts) return 'In memory only, until it is taken';
  const reach = `${(facts.reach / 1000).toFixed(facts.reach < 10_000 ? 1 : 0)} s`;
  const room = facts.bytes > 0 ? `, ${formatBytes(facts.bytes)}` : '';
  if (facts.locks === false) return `${reach}${room}. No lock is heard of here: end it yourself`;
  return facts.shortened ? `${reach}${room}: no room for more` : `${reach}${room}, in memory only`;
}

/** Switches holding on and off; off is gone. */
export function HoldToggle() {
  const source = useSettings((s) => s.settings.way.source);
  const { on, begins, facts, problem } = useBack();
  const isOn = on === source;
  return (
    <>
      <Toggle
        label="Hold the last 10 s"
        note={noteOf(isOn ? facts : null)}
        checked={isOn}
        disabled={begins}
        onChange={(hold) => (hold ? void startHolding(source) : stopHolding())}
      />
      {problem && <Problem>{problem}</Problem>}
    </>
  );
}
