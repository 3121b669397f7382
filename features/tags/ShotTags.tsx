import { useEffect, useRef, useState } from 'react';
import { api, messageOf } from '../api/client';
import { notify } from '../shell/noticeStore';
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
  const told = tags.join('\n');
  useEffect(() => setNames(told ? told.split('\n') : []), [told]);
  const change = (next: readonly string[]) => {
    const before = names;
    setNames(next);
    queue.current = queue.current.then(async () => {
      try {
        const stored = await api.setTags(id, next);
        setNames(stored);
        onChange?.(stored);
        announce(stored.length ? `Tags: ${stored.join(', ')}` : 'No tags');
      } catch (error) {
        setNames(before);
        notify({ key: `tags ${id}`, tone: 'bad', title: 'Not tagged', lines: [messageOf(error)] });
      }
      await readTags();
    });
  };
  return <TagsField names={names} onChange={change} />;
}
