import { X } from 'lucide-react';
import { changeSettings, useSettings } from '../settings/settingsStore';
import { IconButton } from '../ui/IconButton';
import { Toggle } from '../ui/Toggle';

/** Whether web pages are taken by their addresses, and from which hosts of one's own network. */
export function WebPages() {
  const { pagesAllowed, pageHosts } = useSettings((s) => s.settings);
  const forget = (host: string) =>
    changeSettings({ pageHosts: pageHosts.filter((other) => other !== host) });
  return (
    <section aria-label="Web pages" className="mt-6">
      <h2 className="mb-2 font-name text-lg">Web pages</h2>
      <div className="divide-y divide-line rounded-[9px] border border-line bg-card [&>*]:px-4 [&>*]:py-2.5">
        <Toggle
          label="Take web pages by their addresses"
          note="A browser of this computer fetches them, started for each and with none of your logins. Off: nothing is fetched"
          checked={pagesAllowed}
          onChange={(on) => changeSettings({ pagesAllowed: on })}
        />
        {pageHosts.length > 0 && (
          <div>
            <h3 className="font-bold">Allowed in your own network</h3>
            <p className="mb-1 text-[13px] text-soft">
              Pages of all others there are asked about first.
            </p>
            <ul>
              {pageHosts.map((host) => (
                <li key={host} className="flex items-center justify-between gap-3">
                  <span className="min-w-0 font-measure text-[13px] break-all">{host}</span>
                  <IconButton label={`Forget ${host}`} onClick={() => forget(host)}>
                    <X size={16} strokeWidth={1.75} />
                  </IconButton>
                </li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </section>
  );
}
