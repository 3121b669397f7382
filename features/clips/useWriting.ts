import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { ClipJob } from '@/core/contracts/clipCopy';
import { messageOf } from '../api/ask';
import { api } from '../api/client';

const LOOK_AGAIN = 400;

/** A file of a clip while it is written. @param done hears of it once it is */
export function useWriting(clip: string, done: (job: ClipJob) => Promise<void>) {
  const [job, setJob] = useState<ClipJob | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [begins, setBegins] = useState(false);
  /** Pressed twice at once it is begun once. */
  const beginning = useRef(false);
  const { id, state } = job ?? {};
  const failed = (error: unknown) => setProblem(messageOf(error));
  useEffect(() => {
    if (!id || state === 'done' || state === 'stopped') return;
    const timer = setInterval(() => {
      api.clipWriting(clip, id).then(setJob, (error: unknown) => setProblem(messageOf(error)));
    }, LOOK_AGAIN);
    return () => clearInterval(timer);
  }, [clip, id, state]);
  const written = useEffectEvent(() => {
    if (job) done(job).catch(failed);
  });
  useEffect(() => {
    if (id && state === 'done') written();
  }, [id, state]);
  return {
    ...{ job, problem },
    busy: begins || state === 'waiting' || state === 'going on',
    write: async (ask: () => Promise<ClipJob>) => {
      if (beginning.current) return;
      beginning.current = true;
      setBegins(true);
      setProblem(null);
      // The file of before is not what is asked for now.
      setJob(null);
      try {
        setJob(await ask());
      } catch (error) {
        failed(error);
      } finally {
        beginning.current = false;
        setBegins(false);
      }
    },
    stop: () => void (id && api.stopWriting(clip, id).catch(() => undefined)),
  };
}
