import { CloudUpload, Copy, FolderDown, Link2, Mail, PencilLine, Printer } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import type { ThenStep } from '@/core/contracts/way';
import { useBrowserFolders } from '../../keep/browser/folders';
import { useRemotes } from '../../keep/useRemotes';
import { Button } from '../../ui/Button';
import { classes } from '../../ui/classes';
import { Key } from '../../ui/Key';
import { useFolders } from '../useFolders';
import { confirmTake, useTake, type Choosing } from '../takeStore';
import { Footer } from './Footer';
import { Outline } from './Outline';
import { StillPicture } from './StillPicture';
import { useChooserKeys } from './useChooserKeys';

interface Offer {
  key: string;
  label: string;
  step: ThenStep;
  icon: typeof Copy;
}

/** What to do with the chosen part, for once: one key each, several at will, Enter. */
export function AskThen({ choosing }: { choosing: Choosing }) {
  const folders = useFolders();
  const here = useBrowserFolders();
  const remotes = useRemotes();
  const [steps, setSteps] = useState<readonly ThenStep[]>([]);
  const { chosen, stilled } = choosing;
  const offers = useMemo<Offer[]>(
    () => [
      { key: 'C', label: 'Copy', step: { do: 'copy' }, icon: Copy },
      { key: 'M', label: 'Mark', step: { do: 'mark' }, icon: PencilLine },
      { key: 'L', label: 'Link', step: { do: 'link' }, icon: Link2 },
      { key: 'E', label: 'Mail', step: { do: 'mail' }, icon: Mail },
      { key: 'P', label: 'Print', step: { do: 'print' }, icon: Printer },
      ...[
        ...(folders ?? []).map((folder) => ({
          label: `Keep in ${folder.name}`,
          step: { do: 'keep' as const, folderId: folder.id },
          icon: FolderDown,
        })),
        ...here.map(({ id, name }) => ({
          label: `Keep in ${name}`,
          step: { do: 'here' as const, folderId: id },
          icon: FolderDown,
        })),
        ...remotes.map(({ id, name }) => ({
          label: `Send to ${name}`,
          step: { do: 'send' as const, remoteId: id },
          icon: CloudUpload,
        })),
      ]
        .slice(0, 9)
        .map((place, i) => ({ key: String(i + 1), ...place })),
    ],
    [folders, here, remotes],
  );
  const toggle = useCallback((step: ThenStep) => {
    const same = (other: ThenStep) => JSON.stringify(other) === JSON.stringify(step);
    setSteps((all) => (all.some(same) ? all.filter((s) => !same(s)) : [...all, step]));
  }, []);
  const take = useCallback(() => {
    if (chosen) void confirmTake(choosing, chosen, steps);
  }, [choosing, chosen, steps]);
  useChooserKeys(
    useCallback(
      (event) => {
        const offer = offers.find((o) => o.key === event.key.toUpperCase());
        if (offer && !event.ctrlKey && !event.metaKey) toggle(offer.step);
        else if (event.key === 'Enter') take();
        else return false;
        return true;
      },
      [offers, toggle, take],
    ),
  );
  if (!chosen) return null;
  const isOn = (step: ThenStep) => steps.some((s) => JSON.stringify(s) === JSON.stringify(step));
  return (
    <>
      <StillPicture
        picture={stilled.picture}
        pixelView={false}
        cursor={() => 'default'}
        overlay={(scale) => <Outline region={chosen.crop} frame={stilled.picture} scale={scale} />}
      />
      <div role="group" aria-label="Then" className="mt-3 flex flex-wrap gap-2">
        {offers.map(({ key, label, step, icon: Icon }) => (
          <button
            key={key}
            type="button"
            aria-pressed={isOn(step)}
            aria-keyshortcuts={key}
            onClick={() => toggle(step)}
            className={classes(
              'inline-flex h-9 items-center gap-2 rounded-[7px] border px-3',
              isOn(step) ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card',
            )}
          >
            <Icon size={16} strokeWidth={1.75} aria-hidden />
            {label}
            <Key>{key}</Key>
          </button>
        ))}
      </div>
      <Footer take={steps.length === 0 ? 'To the Shelf only' : 'Take it'} onTake={take}>
        <Button onClick={() => useTake.setState({ phase: { ...choosing, chosen: undefined } })}>
          Choose another part
        </Button>
      </Footer>
    </>
  );
}
