import { useEffect } from 'react';
import { api } from '../api/client';
import { readSettings } from '../settings/settingsStore';
import { chooseOnHeld, runRoutine } from './routineStore';
import { bringIn } from './files';

interface LaunchParams {
  files?: readonly { getFile: () => Promise<File> }[];
}

/** Where the installed app is told which files to open (File Handling in the HTML launch queue). */
interface LaunchQueue {
  setConsumer: (act: (params: LaunchParams) => void) => void;
}

/** What a start of the installed app brings: a routine from its shortcut, or files to open. */
export function useLaunch(): void {
  useEffect(() => {
    const search = new URLSearchParams(window.location.search);
    const [wanted, still] = [search.get('routine'), search.get('still')];
    // Once the router hears of it: else it puts back what it began with, and a reload takes again.
    if (wanted) setTimeout(() => window.history.replaceState(null, '', '/take'), 0);
    if (wanted && still) void readSettings().then(() => chooseOnHeld({ routine: wanted, still }));
    else if (wanted) {
      void Promise.all([readSettings(), api.routines()]).then(([, routines]) => {
        const routine = routines.find((r) => r.id === wanted && !r.unconfirmed);
        if (routine) runRoutine(routine);
      });
    }
    const { launchQueue } = window as Window & { launchQueue?: LaunchQueue };
    launchQueue?.setConsumer(({ files = [] }) => {
      void Promise.all(files.map((file) => file.getFile())).then((opened) =>
        opened.length > 0 ? bringIn(opened, 'opened', true) : undefined,
      );
    });
  }, []);
}
