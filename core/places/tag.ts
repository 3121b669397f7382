import { z } from 'zod';
import { limits } from '../values/limits';
import { tagName } from '../values/tagName';
import { place } from './contract';

/** Given tags, beside those it has. */
export const tag = place({
  step: z.strictObject({
    do: z.literal('tag'),
    tags: z.array(tagName).min(1).max(limits.tagsOfStep),
  }),
  label: ({ tags }) => `Tag: ${tags.join(', ')}`,
  said: ({ tags }: { tags: readonly string[] }) => `Tagged: ${tags.join(', ')}`,
  failing: 'Not tagged.',
});
