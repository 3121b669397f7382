import { useEffect } from 'react';
import type { Shot } from '@/core/contracts/shot';
import { api } from '../api/client';
import { pictureQuery, type MadePicture, type PictureWish } from '../api/picture';
import { useAnswer } from '../api/useAnswer';

export interface PictureState {
  /** The file as it will arrive; null until the first one is there. */
  made: MadePicture | null;
  url: string | null;
  /** True while a newer one is being made. */
  making: boolean;
  problem: string | null;
}

/** Pause after the last change, so that a pulled slider asks once. */
const PAUSE = 120;

/** The very file that keeping would write, made by the server for the settings in hand. */
export function usePicture(shot: Shot, wish: PictureWish): PictureState {
  const { answer, problem, asking } = useAnswer(
    async (signal) => {
      const made = await api.picture(shot.id, wish, signal);
      return { made, url: URL.createObjectURL(made.blob) };
    },
    // Its caption may bear its name.
    `${shot.id} ${shot.revision} ${shot.title} ${pictureQuery(wish)}`,
    { after: PAUSE, keep: true },
  );
  const url = answer?.url ?? null;
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url);
    },
    [url],
  );
  return { made: answer?.made ?? null, url, making: asking, problem };
}
