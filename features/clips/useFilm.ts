import { useEffect, useEffectEvent, useState, type RefObject } from 'react';
import { keptStretches, lastKept, pictureAt, type Cuts } from '@/core/clip/cuts';
import { speedAt } from '@/core/clip/played';
import { isIn } from '@/core/values/stretch';

/** A moment inside of a picture at most: at its very begin the one before may still be shown, seconds. */
const INSIDE = 0.002;

/** @param at seconds */
function seek(video: HTMLVideoElement | null, at: number): void {
  if (video) video.currentTime = at;
}

/** The film that is looked through: which picture is seen, played over what is kept alone. */
export function useFilm(
  video: RefObject<HTMLVideoElement | null>,
  times: readonly number[],
  cuts: Cuts,
  /** The picture that is seen first. */
  first: number,
) {
  const [picture, setPicture] = useState(first);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState(1);

  const show = (wanted: number) => {
    const next = Math.max(0, Math.min(times.length - 1, wanted));
    setPicture(next);
    const at = times[next] ?? 0;
    const lasts = (times[next + 1] ?? Infinity) - at;
    seek(video.current, at + Math.min(INSIDE, lasts / 2));
  };
  const stop = () => {
    video.current?.pause();
    setPlaying(false);
  };
  const play = () => {
    const kept = keptStretches(cuts, times.length);
    const here = kept.find((stretch) => isIn(stretch, picture));
    const next = here ? picture : kept.find(({ from }) => from > picture)?.from;
    // From the end it begins anew.
    const begin = picture >= lastKept(cuts, times.length) ? kept[0]?.from : next;
    if (begin !== picture) show(begin ?? 0);
    setPlaying(true);
    void video.current?.play().catch(() => setPlaying(false));
  };

  const seen = useEffectEvent((at: number) => {
    const now = pictureAt(times, at);
    const kept = keptStretches(cuts, times.length);
    if (kept.some((stretch) => isIn(stretch, now))) return setPicture(now);
    const next = kept.find(({ from }) => from > now)?.from;
    if (next !== undefined) return show(next);
    stop();
    show(lastKept(cuts, times.length));
  });
  useEffect(() => {
    const element = video.current;
    if (!element || !playing) return;
    let wanted = true;
    const watch = () =>
      element.requestVideoFrameCallback((_, { mediaTime }) => {
        if (!wanted) return;
        seen(mediaTime);
        watch();
      });
    watch();
    const ended = () => setPlaying(false);
    element.addEventListener('ended', ended);
    return () => {
      wanted = false;
      element.removeEventListener('ended', ended);
    };
  }, [playing, video]);
  // As soon as it can be sought in; by then a person may have gone on.
  const showNow = useEffectEvent(() => show(picture));
  useEffect(() => {
    const element = video.current;
    element?.addEventListener('loadedmetadata', showNow, { once: true });
    return () => element?.removeEventListener('loadedmetadata', showNow);
  }, [video]);
  // A stretch that is played faster is, here too.
  const rate = speed * speedAt(cuts, picture);
  useEffect(() => {
    if (video.current) Object.assign(video.current, { playbackRate: Math.min(16, rate) });
  }, [rate, video]);
  return {
    ...{ picture, playing, speed, setSpeed },
    show: (wanted: number) => {
      stop();
      show(wanted);
    },
    toggle: () => (playing ? stop() : play()),
  };
}
