import { useEffect, useState } from 'react';
import { ApiError, messageOf } from '../api/ask';
import { api } from '../api/client';
import { fromOutbox, whenStored } from '../outbox/outbox';
import { Problem } from '../ui/Problem';
import { ShotTags } from './ShotTags';

/** A take that is still on its way has no tags yet; they can be given once it is there. */
async function tagsOf(id: string): Promise<string[]> {
  try {
    return await api.tagsOf(id);
  } catch (error) {
    if (!(error instanceof ApiError) || error.status !== 404 || !(await fromOutbox(id)))
      throw error;
    await whenStored(id);
    return api.tagsOf(id);
  }
}

/** The tags of a shot of which only the id is at hand. */
export function TagsOf({ id }: { id: string }) {
  const [tags, setTags] = useState<readonly string[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    tagsOf(id).then(
      (found) => wanted && setTags(found),
      (error: unknown) => wanted && setProblem(messageOf(error)),
    );
    return () => {
      wanted = false;
    };
  }, [id]);
  if (problem) return <Problem>{problem}</Problem>;
  if (!tags) return <p className="text-[13px] text-soft">Once the shot is stored …</p>;
  return <ShotTags shot={{ id, tags }} onChange={setTags} />;
}
