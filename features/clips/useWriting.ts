import { useEffect, useEffectEvent, useState } from 'react';
import type { ClipJob } from '@/core/contracts/clip';
import { messageOf } from '../api/ask';
import { api } from '../api/client';

const LOOK_AGAIN = 400;

type Wish = Parameters<typeof api.writeClip>[1];

/** A file of a clip while it is written. @param done hears of it once it is */
export function useWriting(clip: string, done: (job: ClipJob) => Promise<void>) {
  const [job, setJob] = useState<ClipJob | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
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
    busy: state === 'waiting' || state === 'going on',
    write: async (wish: Wish) => {
      setProblem(null);
      try {
        setJob(await api.writeClip(clip, wish));
      } catch (error) {
        setJob(null);
        failed(error);
      }
    },
    stop: () => void (id && api.stopWriting(clip, id).catch(() => undefined)),
  };
}
