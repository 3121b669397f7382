import type { Size } from '@/core/geometry/size';
import { create } from 'zustand';
import type { Point } from '@/core/geometry/point';
import type { Camera } from './camera';

/** What changes with every pointer move; apart from the session, so that little listens to it. */
interface PointerStore {
  /** In frame pixels; null while the pointer is elsewhere. */
  at: Point | null;
  camera: Camera;
  size: Size;
}

export const usePointer = create<PointerStore>(() => ({
  at: null,
  camera: { mode: 'fit', scale: 1, x: 0, y: 0 },
  size: { width: 0, height: 0 },
}));
