import { Link2 } from 'lucide-react';
import { useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import { addressOf } from '@/core/places/link';
import { api } from '../api/client';
import { noPlaces } from '../keep/chosenPlaces';
import { LinkRules } from '../keep/LinkRules';
import { isCopied } from '../pictures/clipboard';
import { ShotLinks } from '../setup/sending/ShotLinks';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { HowFar } from './HowFar';
import { useWriting } from './useWriting';

/** An address under which others see the clip play, as it is now. */
export function LinkClip({ clip, stored }: { clip: Clip; stored: () => Promise<void> }) {
  const [rules, setRules] = useState(noPlaces);
  const [said, setSaid] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const { job, problem, busy, write, stop } = useWriting(clip.id, async ({ id }) => {
    const { linkDays: days, linkViews: mostViews } = rules;
    const made = await api.linkClip(clip.id, { job: id, days, mostViews });
    const address = addressOf(made);
    const words = (await isCopied(address)) ? 'The link is copied' : 'The link is made';
    setSaid(words);
    announce(words);
  });
  const go = async () => {
    setSaid('');
    await write(async () => {
      await stored();
      // It plays in every browser.
      return api.writeClip(clip.id, { folderId: null, format: 'mp4' });
    });
  };
  return (
    <section aria-label="Link to it" className="flex flex-col gap-2">
      <h2 className="font-name text-base">Link to it</h2>
      <div>
        <LinkRules
          places={rules}
          set={(change) => setRules((before) => ({ ...before, ...change }))}
        />
        <Button
          icon={<Link2 size={16} strokeWidth={1.75} />}
          disabled={busy}
          onClick={() => void go()}
        >
          Make a link
        </Button>
      </div>
      {problem && <Problem>{problem}</Problem>}
      {wrong && <Problem>{wrong}</Problem>}
      {job && !said && <HowFar job={job} written="Written" onStop={stop} />}
      {said && (
        <p role="status" className="text-[13px] break-words">
          {said}
        </p>
      )}
      <ShotLinks key={said} shot={clip.id} onProblem={setWrong} />
    </section>
  );
}
