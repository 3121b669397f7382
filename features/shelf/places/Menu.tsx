import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

/** Opens what else can be done with a place; seen where the pointer or the focus is. */
export function MoreButton({ label, children }: { label: string; children: ReactNode }) {
  return (
    <DropdownMenu.Trigger asChild>
      <button
        type="button"
        aria-label={label}
        className="grid size-7 shrink-0 place-items-center rounded-[6px] opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:bg-tint data-[state=open]:opacity-100"
      >
        {children}
      </button>
    </DropdownMenu.Trigger>
  );
}

export function MenuList({ children }: { children: ReactNode }) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="start"
        className="z-50 min-w-44 rounded-[9px] border border-line bg-card p-1 shadow-raised"
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
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
