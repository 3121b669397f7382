import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useRef, type KeyboardEvent, type ReactNode } from 'react';

interface Props {
  /** Of the button that opens the menu. */
  label: string;
  /** The place itself. */
  place: ReactNode;
  /** What else can be done with it. */
  children: ReactNode;
}

/**
 * A place with what else can be done with it: seen where the pointer or the focus is, and by the
 * right arrow key, so that the places stay one Tab stop.
 */
export function WithMore({ label, place, children }: Props) {
  const more = useRef<HTMLButtonElement>(null);
  const key = (event: KeyboardEvent<HTMLDivElement>) => {
    const onMore = event.target === more.current;
    if (event.key === 'ArrowRight' && !onMore) more.current?.focus();
    else if (event.key === 'ArrowLeft' && onMore)
      event.currentTarget.querySelector<HTMLElement>('button')?.focus();
    else return;
    event.preventDefault();
  };
  return (
    <div className="group flex items-center" onKeyDown={key}>
      <div className="min-w-0 grow">{place}</div>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <button
            ref={more}
            type="button"
            tabIndex={-1}
            aria-label={label}
            className="grid size-7 shrink-0 place-items-center rounded-[6px] opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:bg-tint data-[state=open]:opacity-100 [@media(hover:none)]:opacity-100"
          >
            <Ellipsis size={16} strokeWidth={1.75} />
          </button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-50 min-w-44 rounded-[9px] border border-line bg-card p-1 shadow-raised"
          >
            {children}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}

export function MenuItem({ children, onSelect }: { children: ReactNode; onSelect: () => void }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="cursor-default rounded-[6px] px-2 py-1 outline-none data-[highlighted]:bg-tint"
    >
      {children}
    </DropdownMenu.Item>
  );
}
