import type { ReactNode } from 'react';
import { Item } from '../../ui/Row';
import { classes } from '../../ui/classes';
import { ask, type Asked } from '../search/asked';

interface PlaceProps {
  label: string;
  icon?: ReactNode;
  to: Partial<Asked>;
  current: boolean;
  count: string | null;
}

/** One place: a press asks for it. */
export function Place({ label, icon, to, current, count }: PlaceProps) {
  return (
    <Item>
      <button
        type="button"
        aria-pressed={current}
        title={label}
        onClick={() => ask(to, 'chosen')}
        className={classes(
          'flex h-8 w-full min-w-0 items-center gap-2 rounded-[6px] px-2 text-left',
          current ? 'bg-petrol text-card' : 'hover:bg-tint',
        )}
      >
        {icon}
        <span className="min-w-0 grow truncate">{label}</span>
        {count !== null && <span className="font-measure text-[13px]">{count}</span>}
      </button>
    </Item>
  );
}

/** A heading of a group of places. */
export const PlacesHeading = ({ children }: { children: ReactNode }) => (
  <h2 className="mt-4 mb-1 px-2 font-name text-[15px]">{children}</h2>
);
