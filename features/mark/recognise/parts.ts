import { useEffect, useState } from 'react';
import type { Rect } from '@/core/geometry/rect';
import { findPartsIn } from '../../pictures/parts';
import { useDocument } from '../session/document';
import { session } from '../session/session';

const found = new WeakMap<ImageBitmap, readonly Rect[]>();

/** The parts found in the picture so far; none until the worker has answered. */
export const knownParts = (): readonly Rect[] => found.get(session().picture) ?? [];

/** Waits with the search until the picture has come to rest, so that opening is not held up. */
const REST = 900;

/**
 * Looks for the parts that marks and crop are drawn to. What is not found is only not snapped to.
 * @returns how many there are
 */
export function useParts(): number {
  const picture = useDocument((s) => s.picture);
  const [count, setCount] = useState(0);
  useEffect(() => {
    if (found.has(picture)) return;
    const timer = setTimeout(() => {
      findPartsIn(picture).then(
        (parts) => {
          found.set(picture, parts);
          setCount(parts.length);
        },
        () => found.set(picture, []),
      );
    }, REST);
    return () => clearTimeout(timer);
  }, [picture]);
  return count;
}
