import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, existsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Rect } from '@/core/geometry/rect';
import { findParts } from '@/core/screen/parts';
import { XDisplay } from '../lib/xDisplay';
import { misses, score, type KnownBox } from '../parts/score';

let display: XDisplay;
const folder = mkdtempSync(join(tmpdir(), 'rezzik-parts-'));

beforeAll(async () => {
  display = await XDisplay.open(1280, 800);
}, 30_000);
afterAll(() => display.close());

async function found(): Promise<Rect[]> {
  const { data, width, height } = await display.pixels();
  return findParts({ data: new Uint8ClampedArray(data), width, height });
}

/** The windows of a program and all below, where the X server says they are. */
async function tree(title: string): Promise<KnownBox[]> {
  const words = await display.run('xwininfo', '-name', title, '-tree');
  const boxes: KnownBox[] = [];
  for (const [, width, height, x, y] of words.matchAll(
    /(\d+)x(\d+)\+-?\d+\+-?\d+\s+\+(\d+)\+(\d+)/g,
  )) {
    boxes.push({
      kind: null,
      x: Number(x),
      y: Number(y),
      width: Number(width),
      height: Number(height),
    });
  }
  return boxes;
}

const withBorder = (b: KnownBox, by: number): KnownBox => ({
  ...b,
  x: b.x - by,
  y: b.y - by,
  width: b.width + 2 * by,
  height: b.height + 2 * by,
});

test('the keys of an Athena calculator are found, each where its window is', async () => {
  display.start('xcalc', '-title', 'Seed sums', '-geometry', '320x420+80+80');
  await display.windowId('Seed sums');
  await display.run('xdotool', 'mousemove', '1200', '780', 'sleep', '0.5');
  const boxes = await tree('Seed sums');
  // Widgets report their inside; the line around it belongs to what is seen.
  const keys = boxes
    .filter((b) => b.width > 50 && b.width < 90 && b.height > 20 && b.height < 40)
    .map((b) => ({ ...withBorder(b, 1), kind: 'button' }));
  expect(keys.length).toBeGreaterThan(30);
  const parts = await found();
  const got = score(parts, keys);
  expect(got.found / got.known).toBeGreaterThanOrEqual(0.85);
  const frames = [
    ...boxes,
    ...boxes.map((b) => withBorder(b, 1)),
    ...boxes.map((b) => withBorder(b, 2)),
  ];
  const inside = parts.filter((p) => p.width < 300 && p.height < 300);
  const { wrong } = misses(inside, frames);
  expect(1 - wrong.length / inside.length).toBeGreaterThanOrEqual(0.85);
}, 30_000);

test('buttons, fields and panels of a Tk window are found where Tk says they are', async () => {
  const out = join(folder, 'boxes');
  const script = join(folder, 'beds.tcl');
  writeFileSync(
    script,
    `wm title . "Bed card"; wm geometry . 420x360+600+200
frame .p -relief groove -borderwidth 2 -width 380 -height 120
pack .p -padx 16 -pady 14 -fill x; pack propagate .p 0
entry .p.e -width 24 -highlightthickness 0; pack .p.e -pady 12
button .p.b -text "Find a bed" -highlightthickness 0; pack .p.b
listbox .l -height 4 -width 30 -highlightthickness 0; pack .l -pady 10
button .s -text "Save" -highlightthickness 0; button .c -text "Leave it" -highlightthickness 0
pack .s .c -side left -padx 20 -pady 10
update
after 700 {
  set f [open ${out} w]
  foreach w {.p .p.e .p.b .l .s .c} { puts $f "$w [winfo rootx $w] [winfo rooty $w] [winfo width $w] [winfo height $w]" }
  close $f
}`,
  );
  display.start('wish', script);
  await display.windowId('Bed card');
  for (let i = 0; i < 100 && !existsSync(out); i += 1) {
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await new Promise((resolve) => setTimeout(resolve, 300));
  const boxes = readFileSync(out, 'utf8')
    .trim()
    .split('\n')
    .map((line): KnownBox => {
      const [, x, y, width, height] = line.split(' ').map(Number);
      return { kind: 'widget', x: x ?? 0, y: y ?? 0, width: width ?? 0, height: height ?? 0 };
    });
  expect(boxes).toHaveLength(6);
  const parts = await found();
  const got = score(parts, boxes);
  expect(got.found / got.known).toBeGreaterThanOrEqual(0.85);
}, 30_000);
