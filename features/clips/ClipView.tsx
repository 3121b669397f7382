import { useEffect } from 'react';
import type { Clip, Recording } from '@/core/contracts/clip';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { takeEnded } from '../films/justEnded';
import { whenSettled } from '../outbox/settling';
import { followLink } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { OpenClip } from './OpenClip';

/** Until all is known of it, it is asked again so often, ms. */
const SOON = 700;

/** The clip as it is once all is stored that was marked on it here. */
async function settledClip(id: string): Promise<Clip | Recording> {
  await whenSettled(id);
  return takeEnded(id) ?? api.clip(id);
}

/** A clip: looked through, trimmed, and kept. */
export function ClipView({ id }: { id: string }) {
  const { answer, problem, again } = useAnswer(() => settledClip(id), id, {
    keep: true,
    next: (clip) => (clip && clip.state === 'ready' && clip.changes !== null ? null : SOON),
  });
  const title = answer?.state === 'ready' ? answer.title : null;
  useEffect(() => {
    document.title = `${title ?? 'Clip'} – Rezzik`;
  }, [title]);
  const makeReady = () => void api.endClip(id, 0, false).then(again, again);
  if (answer?.state === 'ready') return <OpenClip clip={answer} />;
  return (
    <>
      <Thread />
      <main className="grid grow place-content-center gap-4 p-8">
        <h1 className="sr-only">Clip</h1>
        {problem ? (
          <Problem action={<Button onClick={again}>Try again</Button>}>
            This clip could not be opened. {problem}{' '}
            <a href="/shelf" onClick={followLink} className="underline">
              Go to the Shelf
            </a>
          </Problem>
        ) : (
          !answer?.problem && (
            <p role="status" className="text-soft">
              {answer ? 'It is recorded, or made ready …' : 'Opening the clip …'}
            </p>
          )
        )}
        {answer?.problem && (
          <Problem action={<Button onClick={makeReady}>Try again</Button>}>
            What was recorded is kept, and no clip yet. {answer.problem}
          </Problem>
        )}
      </main>
    </>
  );
}
