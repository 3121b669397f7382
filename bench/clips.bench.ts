import { test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { UNCUT } from '@/core/clip/cuts';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { copyable, copying, isCopied } from '@/server/clips/copied';
import { paintedFilm } from '@/server/clips/painted';
import { planesFor } from '@/server/clips/planes';
import { usualArgs } from '@/server/clips/usual';
import { writingArgs, type Writing } from '@/server/clips/written';
import { ffmpeg } from '@/server/media/ffmpeg';
import { keysOf, probe } from '@/server/media/probe';
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

const plainly = {
  ...{ percent: 100, rate: null, title: null, description: null, bits: null },
  sound: 'none',
  fine: false,
} as const;

/** Fine lines, and over them a window that moves. */
function filmed(path: string, seconds: number, colours: 'yuv444p' | 'yuv420p'): void {
  const of = `s=${SIZE.width}x${SIZE.height}:r=15:d=${seconds}`;
  const drawn = [
    '[1:v]drawgrid=w=60:h=24:t=1:c=0x404040[desk]',
    '[0:v]scale=600:400,setsar=1[window]',
    `[desk][window]overlay=x='200+90*t':y='200+30*t'[out]`,
  ];
  execFileSync('ffmpeg', [
    ...['-loglevel', 'error', '-f', 'lavfi', '-i', `testsrc2=${of}`],
    ...['-f', 'lavfi', '-i', `color=c=0xfafafa:${of}`, '-filter_complex', drawn.join(';')],
    ...['-map', '[out]', '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '12'],
    ...['-pix_fmt', colours, '-g', '30', '-y', path],
  ]);
}

test('a clip of 1920 × 1080 written as WebM, with two marks and without', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-bench-'));
  const path = join(folder, 'film.mkv');
  const to = ['-y', join(folder, 'film.webm')];
  try {
    filmed(path, SECONDS, 'yuv444p');
    const { times } = await probe(path);
    const film = { path, times, cuts: UNCUT, ...SIZE };
    const writing: Writing = { ...plainly, format: 'webm' };
    const { signal } = new AbortController();
    const bare = () =>
      ffmpeg([...writingArgs({ source: film, heard: null }, SIZE, writing), ...to], { most: MOST });
    const marked = async () => {
      const document = { ...untouched(SIZE), marks };
      const inPlanes = await planesFor({ document }, path, false, signal);
      const painting = { signal, most: MOST, background: null, inPlanes };
      const inputs = [paintedFilm({ ...film, document }, SIZE, painting)];
      const args = writingArgs({ painted: inPlanes, heard: null }, SIZE, writing);
      return ffmpeg([...args, ...to], { most: MOST, inputs });
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

/** Of a minute, what is left without its first pictures, against packing all of it anew. */
test.each([
  ['a browser', 'yuv420p', 'as recorded'],
  ['this computer', 'yuv444p', 'as recorded'],
  ['this computer', 'yuv444p', 'in usual colours'],
] as const)(
  'a minute of 1920 × 1080 recorded by %s (%s), cut and kept as MP4 %s',
  async (by, colours, how) => {
    const folder = mkdtempSync(join(tmpdir(), 'rezzik-bench-'));
    const path = join(folder, 'film.mp4');
    const usual = join(folder, 'film.usual');
    const made = join(folder, 'made.mp4');
    const { signal } = new AbortController();
    const run = { most: MOST, signal };
    try {
      filmed(path, 60, colours);
      const film = { path, type: 'video/mp4', etag: '', ...(await probe(path)) };
      const isUsual = how === 'in usual colours';
      const packing = isUsual ? await time(() => ffmpeg(usualArgs(film, usual), run)) : 0;
      const from = isUsual ? { ...film, path: usual, ...(await probe(usual)) } : film;
      const writing: Writing = { ...plainly, format: 'mp4', fine: from.fineColours };
      const kept = async (first: number): Promise<void> => {
        const clip = { ...from, cuts: { away: [{ from: 0, to: first }] } };
        const taken = await copyable(clip, from, writing, signal);
        const copies = taken && (await copying(taken, clip, null, writing, signal));
        if (!copies) throw new Error('Nothing of it can be taken over.');
        await ffmpeg([...copies.args, '-y', made], { ...run, inputs: [copies.input] });
        if (!(await isCopied(made, taken, clip, signal))) throw new Error('It is another film.');
      };
      const source = { ...film, cuts: { away: [{ from: 0, to: 301 }] } };
      const anew = await time(() =>
        ffmpeg([...writingArgs({ source, heard: null }, SIZE, writing), '-y', made], run),
      );
      const [key = 0] = [...((await keysOf(from.path, signal)) ?? [])].filter((n) => n >= 300);
      const atKey = await time(() => kept(key));
      const elsewhere = await time(() => kept(key + 1));
      const said = (ms: number): string =>
        `${(ms / 1000).toFixed(1)} s, ${(ms / anew).toFixed(2)}×`;
      const what = `60 s by ${by} ${how}`;
      report(`${what}, cut at a key picture / packed anew`, said(atKey), 'must be ≤ 2 s');
      report(`${what}, cut elsewhere / packed anew`, said(elsewhere), 'must be ≤ 60 s');
      if (isUsual) report(`${what}: packed so once / whenever it is kept`, said(packing), '');
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  },
  600_000,
);
