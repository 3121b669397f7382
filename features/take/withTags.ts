import type { ThenStep } from '@/core/places/registry';

/** What happens then, with the tags as one step of it. */
export function withTags(then: readonly ThenStep[], tags: readonly string[]): ThenStep[] {
  const others = then.filter((step) => step.do !== 'tag');
  return tags.length ? [...others, { do: 'tag', tags: [...tags] }] : others;
}
