import { useMemo } from 'react';
import type { GuideItem, GuideShot } from '@/core/contracts/guide';
import { numbersOf, type StepNumbers } from '@/core/guide/numbering';
import { useGuide } from './guideStore';

const NONE: readonly GuideShot[] = [];

const EMPTY: readonly GuideItem[] = [];

/** The parts of the open guide. */
export const useGuideItems = (): readonly GuideItem[] =>
  useGuide((s) => s.open?.guide.items ?? EMPTY);

/** The shots of the open guide, by their ids. */
export function useGuideShots(): ReadonlyMap<string, GuideShot> {
  const shots = useGuide((s) => s.open?.stored.shots ?? NONE);
  return useMemo(() => new Map(shots.map((shot) => [shot.id, shot])), [shots]);
}

/** Which numbers each step of the open guide has. */
export function useNumbers(): ReadonlyMap<string, StepNumbers> {
  const items = useGuideItems();
  const shots = useGuideShots();
  return useMemo(
    () =>
      numbersOf(items, (id) => {
        const shot = shots.get(id);
        return shot?.state === 'there' ? shot.discs : undefined;
      }),
    [items, shots],
  );
}
