import { useEffect, type ReactNode } from 'react';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { followLink } from './navigate';
import { Thread } from './Thread';

interface Props {
  /** What is listed: Guides, Series. */
  title: string;
  /** What makes a new one. */
  make: { label: string; icon: ReactNode; act: () => void };
  /** Why the list is not there, or not as it is now. */
  problem: string | null;
  again: () => void;
  children: ReactNode;
}

/** A page below the Shelf that lists what is made of shots. */
export function ListPage({ title, make, problem, again, children }: Props) {
  useEffect(() => {
    document.title = `${title} – Rezzik`;
  }, [title]);
  return (
    <>
      <Thread
        place="shelf"
        actions={
          <Button look="next" icon={make.icon} onClick={make.act}>
            {make.label}
          </Button>
        }
      />
      <main className="min-h-0 grow overflow-auto p-6">
        <p className="text-[13px] text-soft">
          <a href="/shelf" onClick={followLink} className="text-petrol underline">
            Shelf
          </a>{' '}
          ›
        </p>
        <h1 className="mb-4 font-name text-2xl">{title}</h1>
        {problem && (
          <Problem action={<Button onClick={again}>Try again</Button>}>{problem}</Problem>
        )}
        {children}
      </main>
    </>
  );
}
