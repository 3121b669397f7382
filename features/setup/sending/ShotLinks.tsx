import { useCallback, useEffect, useState } from 'react';
import type { Link } from '@/core/contracts/link';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { actThen } from '../../ui/act';
import { OpenLink } from './Links';

interface Props {
  shot: string;
  onProblem: (words: string) => void;
}

/** The links a shot ever got, ended ones too, each with the way to take it back. */
export function ShotLinks({ shot, onProblem }: Props) {
  const [links, setLinks] = useState<readonly Link[]>([]);
  const read = useCallback(async () => setLinks(await api.links(shot)), [shot]);
  useEffect(() => {
    read().catch((error: unknown) => onProblem(messageOf(error)));
  }, [read, onProblem]);
  if (links.length === 0) return null;
  const act = actThen(read, onProblem);
  return (
    <section aria-label="Links">
      <h2 className="mb-1 font-name text-base">Links</h2>
      <ul className="flex flex-col gap-1">
        {links.map((link) => (
          <OpenLink key={link.id} link={link} act={act} />
        ))}
      </ul>
    </section>
  );
}
