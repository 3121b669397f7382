import type { ButtonHTMLAttributes, ReactNode, Ref } from 'react';
import { classes } from './classes';
import { Key } from './Key';

type Look = 'next' | 'plain' | 'quiet' | 'danger';

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: Look;
  icon?: ReactNode;
  /** The key that does the same, shown at the right. */
  hint?: string;
  ref?: Ref<HTMLButtonElement>;
  /** Where there is little room, the icon alone is seen. */
  folds?: boolean;
}

const looks: Record<Look, string> = {
  next: 'border-ink bg-saffron text-on-saffron font-bold hover:brightness-105 disabled:opacity-60',
  plain: 'border-edge bg-card text-ink hover:bg-tint disabled:text-faint disabled:hover:bg-card',
  quiet:
    'border-transparent text-ink hover:bg-tint disabled:text-faint disabled:hover:bg-transparent',
  danger: 'border-brick bg-card text-brick hover:bg-tint',
};

export function Button(props: Props) {
  const { look = 'plain', icon, hint, folds, children, className, ...rest } = props;
  return (
    <button
      type="button"
      aria-keyshortcuts={hint}
      className={classes(
        'inline-flex min-h-8 items-center justify-center gap-2 rounded-[7px] border px-3 py-1 whitespace-nowrap',
        looks[look],
        className,
      )}
      {...rest}
    >
      {icon}
      {folds ? <span className="max-[900px]:sr-only">{children}</span> : children}
      {hint && (
        <span className="contents max-[1100px]:hidden">
          <Key>{hint}</Key>
        </span>
      )}
    </button>
  );
}
