import { Toolbar } from 'radix-ui';
import type { ComponentProps, ReactElement, ReactNode } from 'react';

interface Props {
  label: string;
  vertical?: boolean;
  className?: string;
  children: ReactNode;
}

/** Controls that belong together: one Tab stop, the arrow keys go on within. */
export function Row({ label, vertical = false, className, children }: Props) {
  return (
    <Toolbar.Root
      aria-label={label}
      orientation={vertical ? 'vertical' : 'horizontal'}
      className={className}
    >
      {children}
    </Toolbar.Root>
  );
}

/** A button of a row; what opens something beside it hands its own properties through. */
export const Item = ({ children, ...rest }: ComponentProps<typeof Toolbar.Button>) => (
  <Toolbar.Button asChild {...rest}>
    {children}
  </Toolbar.Button>
);

/** A link of a row. */
export const LinkItem = ({ children }: { children: ReactElement }) => (
  <Toolbar.Link asChild>{children}</Toolbar.Link>
);
