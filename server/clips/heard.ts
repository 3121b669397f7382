import { playedStretches } from '@/core/clip/played';
import { secondsOf, type Cuts } from '@/core/clip/cuts';
import type { Stretch } from '@/core/values/stretch';

/** The sound of a film, as far as it is heard. */
export interface Heard {
  path: string;
  times: readonly number[];
  cuts: Cuts;
  /** When it is silent, seconds. */
  silent: readonly Stretch[];
}

/** Made even first: as many samples a second as Opus has, from the start, gaps filled. */
const EVEN = 'aresample=48000:async=1:first_pts=0,asetnsamples=n=480:p=0';

/** In its time by its samples: silence that nothing was heard before has no time of its own. */
const COUNTED = 'asetpts=N/SR/TB';

const silence = (silent: readonly Stretch[]): string => {
  if (silent.length === 0) return '';
  const when = silent.map(({ from, to }) => `between(t\\,${exact(from)}\\,${exact(to)})`);
  return `,volume=0:enable=${when.join('+')}`;
};

const exact = (seconds: number): string => seconds.toFixed(6);

/** Slower or faster, as high as it was: the filter takes a half at least. */
const tempo = (speed: number): string => {
  if (speed === 1) return '';
  return speed < 0.5 ? `,atempo=0.5,atempo=${speed / 0.5}` : `,atempo=${speed}`;
};

/**
 * What is heard of each stretch that is kept, as long as it is seen.
 * @param input as the program's filters call it
 * @returns filters, and what they call the sound of each stretch
 */
export function heardStretches(
  input: string,
  { times, cuts, silent }: Heard,
): { filters: string[]; names: string[] } {
  const stretches = playedStretches(cuts, times.length);
  const parts = stretches.map((_, i) => `[p${i}]`);
  const names = stretches.map((_, i) => `[h${i}]`);
  const filters = stretches.map(({ speed, ...stretch }, i) => {
    const { from, to } = secondsOf(stretch, times);
    const lasts = exact((to - from) / speed);
    const part = `atrim=start=${exact(from)}:end=${exact(to)},asetpts=PTS-STARTPTS${tempo(speed)}`;
    return `${parts[i]}${part},apad=whole_dur=${lasts},${COUNTED},atrim=end=${lasts}${names[i]}`;
  });
  const split = `${input}${EVEN}${silence(silent)},asplit=${stretches.length}${parts.join('')}`;
  return { filters: [split, ...filters], names };
}

/** The sound of all that is kept, one stretch after the other. */
export function heardGraph(input: string, heard: Heard): string[] {
  const { filters, names } = heardStretches(input, heard);
  return [...filters, `${names.join('')}concat=n=${names.length}:v=0:a=1[heard]`];
}

/** Bits a second, of two channels. */
const MOST_BITS = 128_000;
const LEAST_BITS = 16_000;

/** Of what both have, so much the sound. @param bits null for as many as it takes */
export const soundBits = (bits: number | null): number =>
  bits === null ? MOST_BITS : Math.max(LEAST_BITS, Math.min(MOST_BITS, Math.round(bits / 5)));
