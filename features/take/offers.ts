import type { LucideIcon } from 'lucide-react';
import { useMemo } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { Programs } from '@/core/contracts/program';
import { stepLabel, type ThenStep } from '@/core/places/registry';
import { iconOf } from '../keep/places';
import { api } from '../api/client';
import { useBrowserFolders } from '../keep/browser/folders';
import { useRemotes } from '../keep/useRemotes';
import { useFolders } from '../keep/useFolders';
import { useAnswer } from '../api/useAnswer';

/** One of the things that can be done with a take. */
export interface Offer {
  step: ThenStep;
  label: string;
  icon: LucideIcon;
}

const offer = (step: ThenStep, label = stepLabel(step)): Offer => ({
  step,
  label,
  icon: iconOf(step.do),
});

/** The programs that may open copies; none while they cannot be asked for. */
export const usePrograms = (): Programs | null => useAnswer(api.programs, 'programs').answer;

interface Offers {
  /** Those that need no place to be chosen. */
  always: readonly Offer[];
  /** The default folder; null while there is none, undefined until that is known. */
  usual: Offer | null | undefined;
  /** Every other folder, remote folder and program. */
  places: readonly Offer[];
}

/** Everything that can come after a take. */
export function useOffers(): Offers {
  const folders = useFolders();
  const here = useBrowserFolders();
  const remotes = useRemotes();
  const programs = usePrograms();
  return useMemo(() => {
    const into = ({ id, name }: Folder) => offer({ do: 'keep', folderId: id }, `Keep in ${name}`);
    const usual = folders?.find((f) => f.isDefault);
    return {
      always: (['copy', 'mark', 'keepAsk', 'link', 'mail', 'print'] as const).map((name) =>
        offer({ do: name }),
      ),
      usual:
        folders && (usual ? offer({ do: 'keep', folderId: null }, `Keep in ${usual.name}`) : null),
      places: [
        ...(folders ?? []).filter((f) => !f.isDefault).map(into),
        ...here.map(({ id, name }) => offer({ do: 'here', folderId: id }, `Keep in ${name}`)),
        ...remotes.map(({ id, name }) => offer({ do: 'send', remoteId: id }, `Send to ${name}`)),
        ...(programs?.programs ?? []).map(({ name }) => offer({ do: 'program', program: name })),
      ],
    };
  }, [folders, here, remotes, programs]);
}
