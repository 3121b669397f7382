import type { GuideItem, GuideStep } from '@/core/contracts/guide';
import { change } from './guideStore';

const newId = (): string => crypto.randomUUID();

/** Changes one of the parts of the open guide. */
export function changeItem(id: string, patch: Partial<Omit<GuideStep, 'kind' | 'id'>>): void {
  change(
    ({ guide }) => {
      const item = guide.items.find((one) => one.id === id);
      if (item?.kind === 'step') Object.assign(item, patch);
    },
    `${id} ${Object.keys(patch).join()}`,
  );
}

export function changeHeading(id: string, text: string): void {
  change(({ guide }) => {
    const item = guide.items.find((one) => one.id === id);
    if (item?.kind === 'heading') item.text = text;
  }, `${id} text`);
}

/** Puts a part where another one is. */
export function moveItem(id: string, to: number): void {
  change(({ guide: { items } }) => {
    const from = items.findIndex((one) => one.id === id);
    const [item] = from < 0 ? [] : items.splice(from, 1);
    if (item) items.splice(Math.min(Math.max(to, 0), items.length), 0, item);
  });
}

/** @returns the part that is chosen then: the one after it, or the last */
export function removeItem(items: readonly GuideItem[], id: string): string | null {
  const at = items.findIndex((one) => one.id === id);
  change(({ guide }) => {
    guide.items = guide.items.filter((one) => one.id !== id);
  });
  return (items[at + 1] ?? items[at - 1])?.id ?? null;
}

/** Puts a heading before a part, or at the end. @returns its id */
export function addHeading(before: string | null): string {
  const id = newId();
  change(({ guide: { items } }) => {
    const at = items.findIndex((one) => one.id === before);
    items.splice(at < 0 ? items.length : at, 0, { kind: 'heading', id, text: '' });
  });
  return id;
}

/** Adds shots at the end. @returns the id of the first */
export function addShots(shots: readonly { id: string }[]): string | null {
  const steps = shots.map(({ id: shot }): GuideStep => {
    return { kind: 'step', id: newId(), shot, heading: '', caption: '' };
  });
  change(({ guide }) => {
    guide.items.push(...steps);
  });
  return steps[0]?.id ?? null;
}
