import { useEffect, useState } from 'react';
import type { Shot } from '@/core/contracts/shot';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { pictureQuery, type MadePicture, type PictureWish } from '../api/picture';

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
  const [state, setState] = useState<PictureState>({
    made: null,
    url: null,
    making: true,
    problem: null,
  });
  const query = pictureQuery(wish);
  useEffect(() => {
    const stop = new AbortController();
    setState((s) => ({ ...s, making: true, problem: null }));
    const timer = setTimeout(() => {
      api.picture(shot.id, wish, stop.signal).then(
        (made) =>
          setState({ made, url: URL.createObjectURL(made.blob), making: false, problem: null }),
        (error: unknown) => {
          if (!stop.signal.aborted)
            setState((s) => ({ ...s, making: false, problem: messageOf(error) }));
        },
      );
    }, PAUSE);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
    // The query says everything that the wish does.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shot.id, shot.revision, query]);
  const { url } = state;
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url);
    },
    [url],
  );
  return state;
}
