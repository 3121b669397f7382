import { setShape } from '../fit/crop';
import { session } from '../session/session';
import type { Gesture } from './contract';

/** A point of the free shape that the view shows goes with the pointer. */
export const pullingShapePoint = (index: number): Gesture => ({
  move({ at }) {
    const { history, picture } = session();
    const { shape } = history.document.view;
    if (shape?.kind !== 'polygon') return;
    const to = {
      x: Math.min(Math.max(at.x, 0), picture.width),
      y: Math.min(Math.max(at.y, 0), picture.height),
    };
    const points = shape.points.map((p, i) => (i === index ? to : p));
    setShape({ kind: 'polygon', points }, `shape ${index}`);
  },
});
