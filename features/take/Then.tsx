import {
  CircleHelp,
  CloudUpload,
  Copy,
  FolderDown,
  Link2,
  Mail,
  PencilLine,
  Printer,
  type LucideIcon,
} from 'lucide-react';
import type { Folder } from '@/core/contracts/folder';
import type { ThenStep } from '@/core/contracts/way';
import { useBrowserFolders } from '../keep/browser/folders';
import { useRemotes } from '../keep/useRemotes';
import { followLink } from '../shell/navigate';
import { classes } from '../ui/classes';
import { changeWay, useSettings } from './settingsStore';
import { useFolders } from './useFolders';

/** What tells two steps apart. */
const keyOf = (step: ThenStep): string =>
  [step.do, 'folderId' in step && step.folderId, 'remoteId' in step && step.remoteId].join(' ');
const same = (a: ThenStep, b: ThenStep): boolean => keyOf(a) === keyOf(b);

interface Offer {
  step: ThenStep;
  label: string;
  icon: LucideIcon;
}

/** Every place a shot can be kept in, but for the default folder. */
function usePlaces(folders: readonly Folder[]): Offer[] {
  const here = useBrowserFolders();
  const remotes = useRemotes();
  return [
    ...folders
      .filter((f) => !f.isDefault)
      .map(({ id, name }): Offer => ({
        step: { do: 'keep', folderId: id },
        label: `Keep in ${name}`,
        icon: FolderDown,
      })),
    ...here.map(({ id, name }): Offer => ({
      step: { do: 'here', folderId: id },
      label: `Keep in ${name}`,
      icon: FolderDown,
    })),
    ...remotes.map(({ id, name }): Offer => ({
      step: { do: 'send', remoteId: id },
      label: `Send to ${name}`,
      icon: CloudUpload,
    })),
  ];
}

interface StepsProps {
  then: readonly ThenStep[];
  ask: boolean;
  onChange: (change: { then?: ThenStep[]; ask?: boolean }) => void;
}

/** What happens with a shot after it was taken; several show the order they were put on in. */
export function ThenSteps({ then, ask, onChange }: StepsProps) {
  const folders = useFolders();
  const usual = folders?.find((f) => f.isDefault);
  const places = usePlaces(folders ?? []);
  const isOn = ({ step }: Offer) => then.some((s) => same(s, step));
  const offers: Offer[] = [
    { step: { do: 'copy' }, label: 'Copy', icon: Copy },
    { step: { do: 'mark' }, label: 'Mark', icon: PencilLine },
  ];
  if (usual) {
    const step: ThenStep = { do: 'keep', folderId: null };
    offers.push({ step, label: `Keep in ${usual.name}`, icon: FolderDown });
  }
  const further = [
    { step: { do: 'link' }, label: 'Link', icon: Link2 },
    { step: { do: 'mail' }, label: 'Mail', icon: Mail },
    { step: { do: 'print' }, label: 'Print', icon: Printer },
  ] as const;
  offers.push(...places.filter(isOn), ...further);
  const more = places.filter((place) => !isOn(place));
  const toggle = (step: ThenStep) => {
    const on = then.some((s) => same(s, step));
    onChange({ then: on ? then.filter((s) => !same(s, step)) : [...then, step], ask: false });
  };
  return (
    <>
      <div role="group" aria-label="Then" className="flex flex-wrap gap-1.5">
        {offers.map(({ step, label, icon }) => {
          const place = then.findIndex((s) => same(s, step));
          return (
            <Choice
              key={keyOf(step)}
              label={label}
              icon={icon}
              on={!ask && place >= 0}
              order={!ask && then.length > 1 && place >= 0 ? place + 1 : undefined}
              onChange={() => toggle(step)}
            />
          );
        })}
        {more.length > 0 && (
          <select
            aria-label="Keep in another place"
            value=""
            onChange={(event) => {
              const place = more.find(({ step }) => keyOf(step) === event.target.value);
              if (place) toggle(place.step);
            }}
            className="h-7 max-w-[150px] rounded-full border border-edge bg-card px-2 text-[13px]"
          >
            <option value="">Keep in …</option>
            {more.map(({ step, label }) => (
              <option key={keyOf(step)} value={keyOf(step)}>
                {label}
              </option>
            ))}
          </select>
        )}
        <Choice
          label="Ask me"
          icon={CircleHelp}
          on={ask}
          onChange={() => onChange({ ask: !ask })}
        />
      </div>
      {folders && !usual && (
        <p className="mt-2 text-[13px] text-soft">
          <a href="/setup/folders" onClick={followLink} className="text-petrol underline">
            Set up a folder
          </a>{' '}
          to keep copies in it straight away.
        </p>
      )}
    </>
  );
}

export function Then() {
  const { then, ask } = useSettings((s) => s.settings.way);
  return (
    <section className="py-3">
      <h2 className="mb-2 font-bold">Then</h2>
      <ThenSteps then={then} ask={ask} onChange={changeWay} />
    </section>
  );
}

interface ChoiceProps {
  label: string;
  on: boolean;
  order?: number;
  icon: LucideIcon;
  onChange: () => void;
}

function Choice({ label, on, order, icon: Icon, onChange }: ChoiceProps) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onChange}
      className={classes(
        'inline-flex h-7 max-w-full items-center gap-1.5 rounded-full border px-2.5',
        on ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card hover:bg-tint',
      )}
    >
      <Icon size={16} strokeWidth={1.75} aria-hidden />
      <span className="truncate">{label}</span>
      {order && (
        <span aria-hidden className="font-measure text-[11px]">
          {order}
        </span>
      )}
    </button>
  );
}
