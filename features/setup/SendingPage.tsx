import { useCallback, useEffect, useState } from 'react';
import type { Link } from '@/core/contracts/link';
import type { Dropped } from '@/core/contracts/mail';
import type { Programs } from '@/core/contracts/program';
import type { Remote, Sending } from '@/core/contracts/remote';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { readSettings } from '../settings/settingsStore';
import { actThen } from '../ui/act';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Drop } from './sending/Drop';
import { From } from './sending/From';
import { Letters } from './sending/Letters';
import { Links } from './sending/Links';
import { ProgramList } from './sending/ProgramList';
import { Remotes } from './sending/Remotes';
import { Waiting } from './sending/Waiting';

interface Known {
  links: readonly Link[];
  remotes: readonly Remote[];
  sendings: readonly Sending[];
  dropped: readonly Dropped[];
  programs: Programs | null;
}

/** How often it is looked what became of what waits, ms. */
const LOOK_AGAIN = 3_000;

const nothing: Known = { links: [], remotes: [], sendings: [], dropped: [], programs: null };

/** Everything that leaves this computer or its folders: links, remote folders, mail, programs. */
export function SendingPage() {
  const [known, setKnown] = useState<Known>(nothing);
  const [problem, setProblem] = useState<string | null>(null);
  const read = useCallback(async () => {
    try {
      const [links, remotes, sendings, dropped, programs] = await Promise.all([
        api.openedLinks(),
        api.remotes(),
        api.waitingSendings(),
        api.mailDrop(),
        api.programs(),
      ]);
      setKnown({ links, remotes, sendings, dropped, programs });
      setProblem(null);
    } catch (error) {
      setProblem(messageOf(error));
    }
  }, []);
  useEffect(() => {
    void read();
    void readSettings();
  }, [read]);
  // What waits is tried again by itself: the page says what came of it.
  // An answer that comes after everything was read anew is older than what is shown.
  useEffect(() => {
    if (!known.sendings.some(({ state }) => state === 'waiting')) return;
    let isOlder = false;
    const look = async () => {
      const sendings = await api.waitingSendings().catch(() => known.sendings);
      if (!isOlder) setKnown({ ...known, sendings });
    };
    const timer = setTimeout(() => void look(), LOOK_AGAIN);
    return () => {
      isOlder = true;
      clearTimeout(timer);
    };
  }, [known]);
  const act = actThen(read, setProblem);
  return (
    <div className="flex max-w-3xl flex-col gap-6">
      <h1 className="font-name text-xl">Sending</h1>
      {problem && (
        <Problem action={<Button onClick={() => void read()}>Try again</Button>}>{problem}</Problem>
      )}
      <Links links={known.links} act={act} />
      <From />
      <Letters />
      <Remotes remotes={known.remotes} act={act} />
      <Waiting sendings={known.sendings} act={act} />
      <Drop messages={known.dropped} />
      <ProgramList programs={known.programs} />
    </div>
  );
}
