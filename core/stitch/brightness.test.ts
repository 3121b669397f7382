import { describe, expect, test } from '@jest/globals';
import { blank, fill, ink, LINE, seen, steps, writing } from '@/tests/lib/scrolled';
import { asVideo } from '@/tests/lib/video';
import { brightnessOf } from './brightness';
import type { Frame } from './frame';
import { Joiner } from './joiner';
import { scrolledPart } from './longPage';

const WIDTH = 480;
const HEIGHT = 400;
const GROUND = ink(0x1a1b14);

/** A dark page whose lines have colours, so that hardly one of them stays the same as video. */
function colouredPage(height: number, colour = 0x6a4020): Frame {
  const page = blank(WIDTH, height, GROUND);
  for (let y = 0; y + LINE <= height; y += LINE) {
    writing(page, { x: 24, y, width: WIDTH - 60, height: LINE }, 50 + y);
    for (let at = y * WIDTH; at < (y + LINE) * WIDTH; at += 1)
      if (page.words[at] !== GROUND) page.words[at] = ink(0x9a8a5a + ((y * 37 + colour) % 64));
  }
  return page;
}

const pixels = ({ words, width, height }: Frame) => ({
  ...{ width, height },
  data: new Uint8ClampedArray(words.buffer as ArrayBuffer),
});

const join = (frames: readonly Frame[]) => {
  const to = new Joiner({ width: WIDTH, height: HEIGHT }, { waits: false });
  return { to, added: frames.map((frame) => to.add(frame)) };
};

describe('a page of colours, as video shows it', () => {
  const page = colouredPage(1600);

  test.each([51, 133, 207, 251])('is laid to the row, scrolled by %d', (by) => {
    const offsets = steps(1600 - HEIGHT, by);
    for (const order of [offsets, offsets.toReversed()]) {
      const { to, added } = join(order.map((y) => asVideo(seen(page, y))));
      expect(added.slice(1)).toEqual(order.slice(1).map(() => 'joined'));
      expect(to.pieces.map(({ height }) => height)).toEqual([HEIGHT + Math.max(...offsets)]);
    }
  });

  test.each([51, 120])('what is scrolled is found, by %d', (by) => {
    const found = scrolledPart(pixels(asVideo(seen(page, 0))), pixels(asVideo(seen(page, by))));
    expect(found).toMatchObject({ axis: 'down', shift: by });
  });

  test('scrolled too far it is a gap, not a guess', () => {
    const { added } = join([0, 451, 902].map((y) => asVideo(seen(page, y))));
    expect(added).toEqual(['first', 'apart', 'apart']);
  });

  test('lines that are all alike are never laid on each other by chance', () => {
    const alike = blank(WIDTH, 1600, GROUND);
    const line = { x: 24, width: 400, height: LINE };
    for (let y = 0; y < 1600; y += LINE) writing(alike, { ...line, y }, 12);
    alike.words.forEach((word, at) => {
      if (word !== GROUND) alike.words[at] = ink(0x9a8a5a);
    });
    const { added } = join([0, 47, 93].map((y) => asVideo(seen(alike, y))));
    expect(added).not.toContain('joined');
  });
});

describe('brightness counts', () => {
  test('where two by two pixels have one colour, wherever the first of them lies', () => {
    const video = asVideo(colouredPage(HEIGHT));
    expect(brightnessOf(video)).not.toBeNull();
    const cut = blank(WIDTH, HEIGHT - 1);
    for (let y = 0; y < HEIGHT - 1; y += 1)
      cut.words.set(video.words.subarray((y + 1) * WIDTH + 1, (y + 2) * WIDTH), y * WIDTH);
    expect(brightnessOf(cut)).not.toBeNull();
  });

  test('never where each pixel has a colour of its own, or all is grey', () => {
    expect(brightnessOf(colouredPage(HEIGHT))).toBeNull();
    const grey = blank(WIDTH, HEIGHT);
    fill(grey, { x: 20, y: 20, width: 200, height: 101 }, ink(0x404040));
    expect(brightnessOf(asVideo(grey))).toBeNull();
  });

  test('by the weights of ITU-R BT.601, within a step', () => {
    const video = asVideo(colouredPage(HEIGHT));
    const bright = brightnessOf(video);
    const far = video.words.findIndex((word, at) => {
      const [r, g, b] = [word & 255, (word >> 8) & 255, (word >> 16) & 255];
      return Math.abs((bright?.frame.words[at] ?? 0) - (0.299 * r + 0.587 * g + 0.114 * b)) > 1;
    });
    expect(far).toBe(-1);
  });
});
