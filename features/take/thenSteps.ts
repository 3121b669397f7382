import {
  AppWindow,
  CloudUpload,
  Copy,
  FolderDown,
  FolderPen,
  Link2,
  Mail,
  PencilLine,
  Printer,
  Tag,
  type LucideIcon,
} from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import type { Programs } from '@/core/contracts/program';
import type { ThenStep } from '@/core/contracts/way';
import { api } from '../api/client';
import { useBrowserFolders } from '../keep/browser/folders';
import { useRemotes } from '../keep/useRemotes';
import { useFolders } from './useFolders';

/** One of the things that can be done with a take. */
export interface Offer {
  step: ThenStep;
  label: string;
  icon: LucideIcon;
}

const plain: Record<ThenStep['do'], { label: string; icon: LucideIcon }> = {
  copy: { label: 'Copy', icon: Copy },
  mark: { label: 'Mark', icon: PencilLine },
  keep: { label: 'Keep in a folder', icon: FolderDown },
  keepAsk: { label: 'Keep, asking', icon: FolderPen },
  here: { label: 'Keep in a folder', icon: FolderDown },
  link: { label: 'Link', icon: Link2 },
  mail: { label: 'Mail', icon: Mail },
  print: { label: 'Print', icon: Printer },
  send: { label: 'Send', icon: CloudUpload },
  program: { label: 'Hand to a program', icon: AppWindow },
  tag: { label: 'Tag', icon: Tag },
};

/** What a step is called where its place is not known by name. */
export function stepLabel(step: ThenStep): string {
  if (step.do === 'program') return `Hand to ${step.program}`;
  return step.do === 'tag' ? `Tag: ${step.tags.join(', ')}` : plain[step.do].label;
}

export const sameStep = (a: ThenStep, b: ThenStep): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

const offer = (step: ThenStep, label = stepLabel(step)): Offer => ({
  step,
  label,
  icon: plain[step.do].icon,
});

/** The programs that may open copies; none while they cannot be asked for. */
export function usePrograms(): Programs | null {
  const [programs, setPrograms] = useState<Programs | null>(null);
  useEffect(() => {
    api.programs().then(setPrograms, () => undefined);
  }, []);
  return programs;
}

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
