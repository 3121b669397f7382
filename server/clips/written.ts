import { clipFormats, type ClipFormat } from '@/core/contracts/clip';
import { keptStretches, type Cuts } from '@/core/clip/cuts';
import { writtenSize } from '@/core/clip/size';
import type { Size } from '@/core/geometry/size';
import { asFilm } from '../media/ffmpeg';

/** How a clip is written. */
export interface Writing {
  format: ClipFormat;
  percent: number;
  /** Pictures a second; null for those of the clip. */
  rate: number | null;
  /** Where it is let out. */
  title: string | null;
}

interface Source extends Size {
  path: string;
  times: readonly number[];
  cuts: Cuts;
}

const film = ['-pix_fmt', 'yuv420p'];
/** By the program's own documentation; likeness first, then size. */
const encoders: Record<ClipFormat, string[]> = {
  webm: [
    ...['-c:v', 'libvpx-vp9', '-crf', '24', '-b:v', '0', '-deadline', 'realtime'],
    ...['-cpu-used', '6', '-row-mt', '1', ...film, '-f', 'webm'],
  ],
  mp4: [
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '18', ...film],
    ...['-movflags', '+faststart', '-f', 'mp4'],
  ],
  gif: ['-loop', '0', '-f', 'gif'],
  webp: ['-c:v', 'libwebp_anim', '-quality', '85', '-loop', '0', '-f', 'webp'],
  apng: ['-c:v', 'apng', '-pred', 'mixed', '-plays', '0', '-f', 'apng'],
};

export const isFilm = (format: ClipFormat): boolean =>
  clipFormats[format].type.startsWith('video/');

/** Exactly the pictures that are kept, one stretch after the other. */
function stretched({ cuts, times }: Source): string[] {
  const stretches = keptStretches(cuts, times.length);
  const split = `[0:v]split=${stretches.length}${stretches.map((_, i) => `[s${i}]`).join('')}`;
  const trimmed = stretches.map(
    ({ from, to }, i) =>
      `[s${i}]trim=start_frame=${from}:end_frame=${to},setpts=PTS-STARTPTS[t${i}]`,
  );
  const joined = `${stretches.map((_, i) => `[t${i}]`).join('')}concat=n=${stretches.length}:v=1[k]`;
  return [split, ...trimmed, joined];
}

/** One table of colours for all of it: what does not move does not flicker. */
const GIF = 'split[p][q];[p]palettegen=stats_mode=diff[c];[q][c]paletteuse=dither=none';

/** Of two that come within one thousandth of a second neither is lost. */
const EACH = 'settb=1/1000,setpts=if(isnan(PREV_OUTPTS)\\,PTS\\,max(PTS\\,PREV_OUTPTS+1))';

/** What the program is told, but for where to write. */
export function writingArgs(source: Source, { format, percent, rate, title }: Writing): string[] {
  const size = writtenSize(source, percent, isFilm(format));
  const isScaled = size.width !== source.width || size.height !== source.height;
  const shaped = [
    // Of those that come in between, the one that is seen at the moment.
    rate === null ? EACH : `fps=${rate}:round=up`,
    ...(isScaled ? [`scale=${size.width}:${size.height}:flags=lanczos`] : []),
    ...(format === 'gif' ? [GIF] : []),
  ].join(',');
  const graph = [...stretched(source), `[k]${shaped}[out]`].join(';');
  return [
    ...[...asFilm(source.path), '-filter_complex', graph, '-map', '[out]'],
    ...['-map_metadata', '-1', ...(title === null ? [] : ['-metadata', `title=${title}`])],
    // Every picture at its own time, however uneven: none is dropped, none is shown twice.
    ...(rate === null ? ['-fps_mode', 'passthrough', '-enc_time_base', '1:1000'] : []),
    ...encoders[format],
  ];
}
