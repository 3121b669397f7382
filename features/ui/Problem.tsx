import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';

interface Props {
  children: ReactNode;
  /** The system's own words, one click further. */
  reason?: string;
  action?: ReactNode;
}

/** What went wrong, where the person is looking. */
export function Problem({ children, reason, action }: Props) {
  return (
    <div role="alert" className="rounded-[7px] border border-brick bg-card p-3 text-brick">
      <div className="flex items-start gap-2">
        <TriangleAlert size={18} strokeWidth={1.75} className="mt-0.5 shrink-0" aria-hidden />
        <div className="min-w-0 grow break-words">{children}</div>
        {action}
      </div>
      {reason && (
        <details className="mt-1 ml-6 text-[13px]">
          <summary>The system’s own words</summary>
          <p className="font-measure break-words">{reason}</p>
        </details>
      )}
    </div>
  );
}
