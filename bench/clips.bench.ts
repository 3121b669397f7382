import { test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { UNCUT } from '@/core/clip/cuts';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { paintedFilm } from '@/server/clips/painted';
import { planesFor } from '@/server/clips/planes';
import { writingArgs, type Writing } from '@/server/clips/written';
import { ffmpeg } from '@/server/media/ffmpeg';
import { probe } from '@/server/media/probe';
import { median, report, time } from './measure';

const SIZE = { width: 1920, height: 1080 };
const SECONDS = 10;
const MOST = 600_000;

const marks = [
  {
    ...{ id: 'arrow', kind: 'arrow', from: { x: 300, y: 300 }, to: { x: 900, y: 700 } },
    ...{ bend: null, colour: '#D55E00', thickness: 8, heads: 'end', dashed: false },
  },
  { id: 'hidden', kind: 'blocks', x: 1200, y: 500, width: 400, height: 200 },
].map((mark) => markSchema.parse(mark));

/** Fine lines, and over them a window that moves. */
function filmed(path: string): void {
  const of = `s=${SIZE.width}x${SIZE.height}:r=15:d=${SECONDS}`;
  const drawn = [
    '[1:v]drawgrid=w=60:h=24:t=1:c=0x404040[desk]',
    '[0:v]scale=600:400,setsar=1[window]',
    `[desk][window]overlay=x='200+90*t':y='200+30*t'[out]`,
  ];
  execFileSync('ffmpeg', [
    ...['-loglevel', 'error', '-f', 'lavfi', '-i', `testsrc2=${of}`],
    ...['-f', 'lavfi', '-i', `color=c=0xfafafa:${of}`, '-filter_complex', drawn.join(';')],
    ...['-map', '[out]', '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '12'],
    ...['-pix_fmt', 'yuv444p', '-g', '30', '-y', path],
  ]);
}

test('a clip of 1920 × 1080 written as WebM, with two marks and without', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-bench-'));
  const path = join(folder, 'film.mkv');
  const to = ['-y', join(folder, 'film.webm')];
  try {
    filmed(path);
    const { times } = await probe(path);
    const film = { path, times, cuts: UNCUT, ...SIZE };
    const writing: Writing = {
      format: 'webm',
      percent: 100,
      rate: null,
      title: null,
      description: null,
      bits: null,
      sound: 'none',
    };
    const { signal } = new AbortController();
    const bare = () =>
      ffmpeg([...writingArgs({ source: film, heard: null }, SIZE, writing), ...to], { most: MOST });
    const marked = async () => {
      const document = { ...untouched(SIZE), marks };
      const inPlanes = await planesFor({ document }, path, false, signal);
      const painting = { signal, most: MOST, background: null, inPlanes };
      const input = paintedFilm({ ...film, document }, SIZE, painting);
      const args = writingArgs({ painted: inPlanes, heard: null }, SIZE, writing);
      return ffmpeg([...args, ...to], { most: MOST, input });
    };
    await marked();
    const ratios: number[] = [];
    for (let round = 0; round < 3; round += 1) {
      const alone = await time(bare);
      ratios.push((await time(marked)) / alone);
    }
    const ratio = median(ratios).toFixed(2);
    report(
      `${SECONDS} s of 1920 × 1080 with two marks / ffmpeg alone`,
      `${ratio}×`,
      'must be ≤ 2×',
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}, 600_000);
