import { useState } from 'react';
import { pictureAt } from '@/core/clip/cuts';

/** The picture of a clip that the address tells by its moment; the first where it tells none. */
export function useMomentAsked(times: readonly number[]): number {
  const [picture] = useState(() => {
    const at = Number(new URLSearchParams(window.location.search).get('at'));
    return at > 0 ? pictureAt(times, at) : 0;
  });
  return picture;
}
