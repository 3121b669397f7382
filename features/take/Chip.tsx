import type { ReactNode } from 'react';
import { chosenLook, classes } from '../ui/classes';
import { Item } from '../ui/Row';

interface Props {
  label: string;
  icon: ReactNode;
  current?: boolean;
  onClick: () => void;
}

/** A source, or a way to bring a picture in, on the bar of Take. */
export function Chip({ label, icon, current, onClick }: Props) {
  // Ways to bring a picture in are no sources: their pictures say enough where there is little room.
  const brings = current === undefined;
  const narrow = brings ? 'max-[1439px]:sr-only' : !current && 'max-[1260px]:sr-only';
  return (
    <Item>
      <button
        type="button"
        aria-pressed={current}
        onClick={onClick}
        title={label}
        className={classes(
          'inline-flex h-8 min-w-9 items-center gap-2 rounded-full border px-2.5 whitespace-nowrap max-[1439px]:gap-1.5 max-[1439px]:px-2',
          chosenLook(current === true),
        )}
      >
        {icon}
        <span className={classes('truncate', narrow)}>{label}</span>
      </button>
    </Item>
  );
}
