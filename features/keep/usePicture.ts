import { useEffect, useState } from 'react';
import type { FormatName } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { safeName } from '@/core/naming/safeName';
import { api, messageOf } from '../api/client';
import { saveBlob } from '../pictures/saveBlob';

export interface PictureState {
  /** The file as it will arrive; null until the first one is there. */
  blob: Blob | null;
  url: string | null;
  /** True while a newer one is being made. */
  making: boolean;
  problem: string | null;
  download: () => void;
}

/** Pause after the last change, so that a pulled slider asks once. */
const PAUSE = 120;

/** The very file that keeping would write, made by the server for the settings in hand. */
export function usePicture(shot: Shot, format: FormatName, quality: number): PictureState {
  const [state, setState] = useState<Omit<PictureState, 'download'>>({
    blob: null,
    url: null,
    making: true,
    problem: null,
  });
  const asked = format === 'png' ? 100 : quality;
  useEffect(() => {
    const stop = new AbortController();
    setState((s) => ({ ...s, making: true, problem: null }));
    const timer = setTimeout(() => {
      api.picture(shot.id, format, asked, stop.signal).then(
        (blob) => setState({ blob, url: URL.createObjectURL(blob), making: false, problem: null }),
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
  }, [shot.id, shot.revision, format, asked]);
  const { url } = state;
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url);
    },
    [url],
  );
  const extension = format === 'jpeg' ? 'jpg' : format;
  return {
    ...state,
    download: () => state.blob && saveBlob(state.blob, `${safeName(shot.title)}.${extension}`),
  };
}
