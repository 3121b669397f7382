import { deepEqual } from 'fast-equals';
import { useRef, useState } from 'react';
import type { OnlyChanged, Series, SeriesPatch } from '@/core/contracts/series';

/**
 * What a series watches, as it was changed last: seen at once, and sent one change after the other,
 * so that none is lost to one that comes before the answer.
 */
export function useWatched(
  { onlyChanged }: Series,
  onChange: (patch: SeriesPatch) => Promise<boolean>,
): [OnlyChanged | null, (to: OnlyChanged) => void] {
  const [changed, setChanged] = useState<OnlyChanged | null>(null);
  const sending = useRef(Promise.resolve());
  // Once the server tells the same, what it tells is shown again.
  if (changed && deepEqual(changed, onlyChanged)) setChanged(null);
  const change = (to: OnlyChanged) => {
    setChanged(to);
    sending.current = sending.current.then(async () => {
      if (!(await onChange({ onlyChanged: to }))) setChanged(null);
    });
  };
  return [changed ?? onlyChanged, change];
}
