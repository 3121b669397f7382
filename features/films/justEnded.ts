import type { Clip } from '@/core/contracts/clip';

/** What a recording became just now, so that whoever is led there does not wait for it again. */
let ended: Clip | null = null;

export const rememberEnded = (clip: Clip): void => void (ended = clip);

/** The clip, once: by the next time it may be another one. */
export function takeEnded(id: string): Clip | null {
  const clip = ended?.id === id ? ended : null;
  ended = null;
  return clip;
}
