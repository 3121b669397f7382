import { useState } from 'react';
import type { Link } from '@/core/contracts/link';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { copyText } from '../../pictures/clipboard';
import { storeSettings, useSettings } from '../../settings/settingsStore';
import { Button } from '../../ui/Button';
import { formatMoment } from '../../ui/format';
import { NumberInput } from '../../ui/NumberInput';
import { Problem } from '../../ui/Problem';
import { Toggle } from '../../ui/Toggle';
import type { Act } from '../../ui/act';

const FIRST_PORT = 4311;

/** The second door, and every link that still shows something. */
export function Links({ links, act }: { links: readonly Link[]; act: Act }) {
  const port = useSettings((s) => s.settings.linkPort);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (linkPort: number | null) => {
    storeSettings({ linkPort })
      .then(() => {
        setProblem(null);
        return act(Promise.resolve());
      })
      .catch((error: unknown) => setProblem(messageOf(error)));
  };
  return (
    <section aria-label="Links">
      <h2 className="mb-2 font-name text-lg">Links</h2>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <Toggle
          label="Reached from other machines"
          note="A second door that shows linked pictures and nothing else. The rest of Rezzik stays on this computer."
          checked={port !== null}
          onChange={(on) => set(on ? FIRST_PORT : null)}
        />
        {port !== null && (
          <NumberInput label="Port" value={port} min={1024} max={65_535} onCommit={set} />
        )}
        {problem && <Problem>{problem}</Problem>}
      </div>
      <ul aria-label="Open links" className="mt-2 flex flex-col gap-2">
        {links.map((link) => (
          <OpenLink key={link.id} link={link} act={act} />
        ))}
      </ul>
    </section>
  );
}

const viewsOf = ({ views, mostViews }: Link): string =>
  mostViews === null ? `seen ${views}×` : `seen ${views} of ${mostViews} times`;

/** A link, what is known of it, and the way to take it back. */
export function OpenLink({ link, act }: { link: Link; act: Act }) {
  const address = link.openAddress ?? link.address;
  return (
    <li className="rounded-[9px] border border-line bg-card p-3">
      <p className="font-bold">{link.title || (link.film ? 'A clip' : 'A picture')}</p>
      <p className="font-measure text-[12px] break-all">
        <a href={link.path} target="_blank" rel="noreferrer" className="text-petrol underline">
          {address}
        </a>
      </p>
      <p className="text-[13px] text-soft">
        {viewsOf(link)};{' '}
        {link.ended
          ? 'it has ended'
          : link.endsAt
            ? `ends ${formatMoment(link.endsAt)}`
            : 'does not end by itself'}
      </p>
      <div className="flex flex-wrap gap-1">
        <Button look="quiet" onClick={() => void act(copyText(address))}>
          Copy the link
        </Button>
        <Button look="quiet" onClick={() => void act(api.takeBack(link.id))}>
          {link.ended ? 'Remove it' : 'Take the link back'}
        </Button>
      </div>
    </li>
  );
}
