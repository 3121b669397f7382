import { X } from 'lucide-react';
import { useKeyOf, keyLabel } from '../../keys/useAction';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Key } from '../../ui/Key';
import { useLive } from '../session/live';
import { update } from '../session/session';
import { formLabels, trueUp } from '../recognise/trueUp';
import { formatFixed } from '../../ui/format';

/** After a stroke: what it may have been meant to be, the likeliest first, with how well it fits. */
export function TrueUpChip() {
  const offered = useLive((s) => s.trueUp);
  const key = useKeyOf('mark.trueUp');
  if (!offered) return null;
  return (
    <div
      role="group"
      aria-label="True up"
      onPointerDown={(event) => event.stopPropagation()}
      className="absolute bottom-3 left-1/2 flex -translate-x-1/2 items-center gap-2 rounded-[9px] border border-line bg-card px-3 py-1.5 shadow-raised"
    >
      <span className="font-bold">True up</span>
      {key && <Key>{keyLabel(key)}</Key>}
      {offered.candidates.map((candidate) => (
        <Button key={candidate.meant.form} onClick={() => trueUp(candidate)}>
          {formLabels[candidate.meant.form]}{' '}
          <span className="font-measure text-[13px] text-soft">
            {`± ${formatFixed(candidate.residual, 1)} px`}
          </span>
        </Button>
      ))}
      <IconButton label="Leave the stroke" onClick={() => update({ trueUp: null })}>
        <X size={16} strokeWidth={1.75} />
      </IconButton>
    </div>
  );
}
