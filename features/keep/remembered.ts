import { useEffect, useState } from 'react';
import { noPlaces, type Places } from './chosenPlaces';
import { noWish, type Wish } from './wish';

/** What is chosen in Keep for one shot: it stays while the tab does, on Back, Forward and reload. */
export interface Chosen {
  wish: Wish;
  places: Places;
}

const keyOf = (shot: string): string => `rezzik-keep ${shot}`;

/** What this tab wrote itself; fields that came since are as at first. */
function read(shot: string): Chosen | null {
  try {
    const kept = JSON.parse(
      sessionStorage.getItem(keyOf(shot)) ?? 'null',
    ) as Partial<Chosen> | null;
    if (!kept) return null;
    return { wish: { ...noWish, ...kept.wish }, places: { ...noPlaces, ...kept.places } };
  } catch {
    return null;
  }
}

/** The choices for a shot, remembered; `first` where nothing was chosen before. */
export function useChosen(shot: string, first: () => Chosen) {
  const [chosen, setChosen] = useState<Chosen>(() => read(shot) ?? first());
  useEffect(() => {
    try {
      sessionStorage.setItem(keyOf(shot), JSON.stringify(chosen));
    } catch {
      // Then they are chosen again next time.
    }
  }, [shot, chosen]);
  return [chosen, setChosen] as const;
}
