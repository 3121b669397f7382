import type { ReactNode } from 'react';

/** How a field of a form looks. */
export const fieldLook = 'min-h-8 w-full rounded-[6px] border border-edge bg-card px-2';

/** A field of a form with its name at the left. */
export function FormRow({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="grid grid-cols-[110px_1fr] items-center gap-2">
      <span className="font-bold">{label}</span>
      {children}
    </label>
  );
}
