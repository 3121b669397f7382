import { Tooltip } from 'radix-ui';
import {
  useEffect,
  useState,
  type ButtonHTMLAttributes,
  type ReactNode,
  type SyntheticEvent,
} from 'react';
import { flushSync } from 'react-dom';
import { classes } from './classes';

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  label: string;
  /** The key that does the same. */
  hint?: string;
  children: ReactNode;
}

const LANDMARKS = '[role="dialog"], main, header, footer, aside, nav';

/** A button with a picture only; its name shows on hover and focus. */
export function IconButton({ label, hint, children, className, ...rest }: Props) {
  const [open, setOpen] = useState(false);
  const [place, setPlace] = useState<HTMLElement | null>(null);
  const note = ({ currentTarget }: SyntheticEvent<HTMLElement>) =>
    setPlace(currentTarget.closest<HTMLElement>(LANDMARKS));
  useEffect(() => (open ? closeOnEscape(() => setOpen(false)) : undefined), [open]);
  return (
    <Tooltip.Root open={open} onOpenChange={setOpen}>
      <Tooltip.Trigger asChild onFocus={note} onPointerEnter={note}>
        <button
          type="button"
          aria-label={label}
          aria-keyshortcuts={hint}
          className={classes(
            'grid size-8 shrink-0 place-items-center rounded-[7px] hover:bg-tint disabled:text-faint/60 disabled:hover:bg-transparent',
            className,
          )}
          {...rest}
        >
          {children}
        </button>
      </Tooltip.Trigger>
      {/* In the landmark of its button: nothing that is read lies outside of all of them. */}
      <Tooltip.Portal container={place}>
        <Tooltip.Content
          sideOffset={4}
          // A dialog that can be scrolled cuts off what lies beyond its edge.
          collisionBoundary={place?.matches('[data-modal]') ? place : []}
          className="z-50 rounded-[6px] bg-ink px-2 py-1 text-[13px] text-on-ink"
        >
          {label}
          {hint ? ` (${hint})` : ''}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

/** Esc closes the name, and goes on to what it is meant for: a tooltip would keep it to itself. */
function closeOnEscape(close: () => void): () => void {
  const key = (event: KeyboardEvent) => event.key === 'Escape' && flushSync(close);
  window.addEventListener('keydown', key, true);
  return () => window.removeEventListener('keydown', key, true);
}
