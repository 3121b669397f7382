import { Check, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../../ui/Button';
import { cancelTake } from '../takeStore';

interface Props {
  children?: ReactNode;
  take: string;
  disabled?: boolean;
  onTake: () => void;
  /** The way out, where it is another one than ending the take. */
  onLeave?: () => void;
}

/** Below the stilled picture: numbers and choices of the kind, the way out, and the next step. */
export function Footer({ children, take, disabled, onTake, onLeave = cancelTake }: Props) {
  return (
    <div className="mt-3 flex items-center gap-3">
      {/* What is said changes; the picture above must not move with it. */}
      <div className="flex min-h-9 min-w-0 grow items-center gap-2 overflow-hidden">{children}</div>
      <Button hint="Esc" icon={<X size={16} strokeWidth={1.75} />} onClick={onLeave}>
        Leave it
      </Button>
      <Button
        look="next"
        hint="Enter"
        icon={<Check size={18} strokeWidth={1.75} />}
        disabled={disabled}
        onClick={onTake}
      >
        {take}
      </Button>
    </div>
  );
}

/** What happens now, for everybody: seen, and read out. */
export function Said({ label, children }: { label: string; children: ReactNode }) {
  return (
    <output
      aria-live="polite"
      aria-label={label}
      className="min-w-0 truncate font-measure text-[13px] text-soft"
    >
      {children}
    </output>
  );
}
