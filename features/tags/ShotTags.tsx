import { useEffect, useRef, useState } from 'react';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { notify } from '../notices/noticeStore';
import { announce } from '../ui/announce';
import { readTags } from './tagStore';
import { TagsField } from './TagsField';

interface Props {
  shot: { id: string; tags: readonly string[] };
  onChange?: (tags: string[]) => void;
}

/** The tags of a shot, changed in place: one change after the other, the last one holds. */
export function ShotTags({ shot: { id, tags }, onChange }: Props) {
  const [names, setNames] = useState(tags);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  /** Changes that are not answered yet: until then what the person sees is ahead of the server. */
  const ahead = useRef(0);
  const told = tags.join('\n');
  useEffect(() => {
    if (ahead.current === 0) setNames(told ? told.split('\n') : []);
  }, [told]);
  const change = (next: readonly string[]) => {
    const before = names;
    setNames(next);
    ahead.current += 1;
    queue.current = queue.current.then(async () => {
      try {
        const stored = await api.setTags(id, next);
        ahead.current -= 1;
        if (ahead.current > 0) return;
        setNames(stored);
        onChange?.(stored);
        announce(stored.length ? `Tags: ${stored.join(', ')}` : 'No tags');
      } catch (error) {
        ahead.current -= 1;
        if (ahead.current === 0) setNames(before);
        notify({ key: `tags ${id}`, tone: 'bad', title: 'Not tagged', lines: [messageOf(error)] });
      }
      await readTags();
    });
  };
  return <TagsField names={names} onChange={change} />;
}
