import { CircleDot, Square } from 'lucide-react';
import { keyLabel, useAction, useKeyOf } from '../../keys/useAction';
import { useSettings } from '../../settings/settingsStore';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { startTake } from '../takeStore';
import { sources } from '../sources/list';
import { useBack } from './backState';
import { stopHolding } from './hold';

/** Looks through what is held, from any view. */
export function lookBack(): void {
  const { way } = useSettings.getState().settings;
  const source = useBack.getState().on ?? way.source;
  startTake({ ...way, source, kind: 'back' });
}

/** In every view, while something is held: that it is, the way to look at it, and the way to end it. */
export function HoldingSign() {
  const on = useBack((s) => s.on);
  const key = useKeyOf('back.show');
  useAction('back.show', lookBack);
  if (!on) return null;
  return (
    <div role="group" aria-label="Held" className="flex shrink-0 items-center gap-1">
      <Button
        look="quiet"
        className="shrink-0"
        icon={<CircleDot size={16} strokeWidth={2} className="text-brick" />}
        hint={keyLabel(key)}
        title={`The last 10 s of ${sources[on].label} are held, in memory only`}
        onClick={lookBack}
      >
        Look back
      </Button>
      <IconButton label="Hold no longer" onClick={stopHolding}>
        <Square size={14} strokeWidth={2} fill="currentColor" />
      </IconButton>
    </div>
  );
}
