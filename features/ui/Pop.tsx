import { Popover } from 'radix-ui';
import type { ReactElement, ReactNode } from 'react';
import { classes } from './classes';

interface Props {
  /** What opens it. */
  trigger: ReactElement;
  label?: string;
  side?: 'top' | 'bottom';
  open?: boolean;
  className?: string;
  /** Keys act in the view as if it were not there, but Esc, which closes it. */
  passesKeys?: boolean;
  /** The focus goes elsewhere when it closes. */
  keepsFocus?: boolean;
  onOpen?: (open: boolean) => void;
  children: ReactNode;
}

/** A small sheet beside what opened it. Its keys are its own unless it passes them on. */
export function Pop(props: Props) {
  const { trigger, label, side = 'bottom', open, className, passesKeys, keepsFocus } = props;
  const { onOpen, children } = props;
  return (
    <Popover.Root open={open} onOpenChange={onOpen}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side={side}
          align="end"
          sideOffset={8}
          collisionPadding={12}
          aria-label={label}
          data-takes-keys={!passesKeys || undefined}
          data-passes-keys={passesKeys}
          onCloseAutoFocus={keepsFocus ? (event) => event.preventDefault() : undefined}
          className={classes(
            'z-50 rounded-[9px] border border-edge bg-card p-3 shadow-raised',
            className,
          )}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
