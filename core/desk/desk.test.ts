import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { testShaper } from '@/tests/lib/shaper';
import type { Shaper } from '../drawing/shaper';
import { barShows, layOutDesk, deskPointer, looksSame, paintDesk } from './build';
import { deskEvent, placeOf, type DeskEvent } from './events';
import { createDesk, deskBounds, deskDisplays, reading, type Desk } from './model';

let shaper: Shaper;
beforeAll(async () => {
  shaper = await testShaper();
});

const NOW = Date.UTC(2026, 10, 23, 14, 2);
const fresh = createDesk(1, NOW);
const after = (desk: Desk, ...events: DeskEvent[]): Desk => events.reduce(deskEvent, desk);
const at = (desk: Desk, id: string) => {
  const place = placeOf(desk, id);
  if (!place) throw new Error(`no ${id}`);
  return place;
};
const pixels = (desk: Desk) => {
  const surface = createCanvas(deskBounds.width, deskBounds.height).getContext('2d');
  paintDesk(surface, desk, shaper, deskBounds);
  return Buffer.from(surface.getImageData(0, 0, deskBounds.width, deskBounds.height).data);
};

test('the same seed, time and events give the very same frame', () => {
  expect(pixels(createDesk(7, NOW)).equals(pixels(createDesk(7, NOW)))).toBe(true);
  expect(pixels(createDesk(7, NOW)).equals(pixels(createDesk(7, NOW + 1000)))).toBe(false);
});

test('where two moments are said to look the same, they do', () => {
  const moved = after(fresh, { type: 'move', at: at(fresh, 'menu:Beds') });
  const events: DeskEvent[] = [
    ...[150, 300, 450, 700, 900, 1100].map((ms): DeskEvent => ({ type: 'tick', now: NOW + ms })),
    { type: 'wheel', by: 20 },
    { type: 'tick', now: NOW + 1300 },
  ];
  const same: boolean[] = [];
  let desk = moved;
  for (const event of events) {
    const next = deskEvent(desk, event);
    same.push(looksSame(desk, next));
    if (looksSame(desk, next)) expect(pixels(next).equals(pixels(desk))).toBe(true);
    desk = next;
  }
  // Something shows at 600 ms of rest, at the full second, and by the wheel.
  expect(same).toEqual([true, true, true, false, true, false, false, true]);
});

test('corners that no display covers are empty, the rest is opaque', () => {
  const data = pixels(fresh);
  const alpha = (x: number, y: number) => data[(y * deskBounds.width + x) * 4 + 3];
  expect(alpha(0, 0)).toBe(0);
  expect(alpha(0, deskBounds.height - 1)).toBe(0);
  for (const { bounds } of deskDisplays) {
    expect(alpha(bounds.x, bounds.y)).toBe(255);
    expect(alpha(bounds.x + bounds.width - 1, bounds.y + bounds.height - 1)).toBe(255);
  }
});

describe('what goes away when one reaches for something else', () => {
  const open = after(fresh, { type: 'press', at: at(fresh, 'menu:Labels') }, { type: 'release' });

  test('a menu closes on a click elsewhere, on losing the focus and on another key', () => {
    expect(open.menu?.name).toBe('Labels');
    expect(after(open, { type: 'press', at: at(open, 'slip') }).menu).toBeNull();
    expect(after(open, { type: 'blur' }).menu).toBeNull();
    expect(after(open, { type: 'key', key: 'x', down: true }).menu).toBeNull();
  });

  test('its entries change while Alt is held', () => {
    const held = after(open, { type: 'key', key: 'Alt', down: true });
    expect(pixels(held).equals(pixels(open))).toBe(false);
    expect(pixels(after(held, { type: 'key', key: 'Alt', down: false })).equals(pixels(open))).toBe(
      true,
    );
    const chosen = after(held, { type: 'press', at: at(held, 'entry:0') });
    expect(chosen.said.register).toBe('Print label twice');
  });

  test('arrow keys and Enter choose an entry', () => {
    const keys = ['ArrowDown', 'ArrowDown', 'Enter'].map((key): DeskEvent => ({
      type: 'key',
      key,
      down: true,
    }));
    expect(after(open, ...keys).said.register).toBe('Preview label');
  });

  test('a row shows its button only while hovered', () => {
    const over = after(fresh, { type: 'move', at: at(fresh, 'row:2') });
    expect(layOutDesk(over).area('water:2')).toBeDefined();
    expect(layOutDesk(after(over, { type: 'leave' })).area('water:2')).toBeUndefined();
  });

  test('a tooltip comes after 600 ms of rest', () => {
    const over = after(fresh, { type: 'move', at: at(fresh, 'slip') });
    const early = after(over, { type: 'tick', now: NOW + 500 });
    const late = after(over, { type: 'tick', now: NOW + 700 });
    expect(pixels(early).equals(pixels(over))).toBe(true);
    expect(pixels(late).equals(pixels(over))).toBe(false);
  });

  test('the bar shows only while the pointer is at the lower edge', () => {
    const low = after(fresh, { type: 'move', at: { x: 400, y: 1070 } });
    expect(barShows(low)).toBe(true);
    expect(barShows(after(low, { type: 'leave' }))).toBe(false);
  });
});

describe('windows', () => {
  test('are raised, dragged partly off the edge, minimised and brought back', () => {
    const raised = after(fresh, { type: 'press', at: { x: 100, y: 700 } }, { type: 'release' });
    expect(raised.windows.at(-1)?.name).toBe('register');
    const dragged = after(
      raised,
      { type: 'press', at: { x: 400, y: 240 } },
      { type: 'move', at: { x: -5000, y: 240 } },
    );
    const bounds = dragged.windows.at(-1)?.bounds;
    expect(bounds && bounds.x < 0 && bounds.x + bounds.width >= 60).toBe(true);
    const small = after(
      raised,
      { type: 'press', at: at(raised, 'minimise:register') },
      { type: 'release' },
    );
    expect(small.windows.find((w) => w.name === 'register')?.minimised).toBe(true);
    const low = after(small, { type: 'move', at: { x: 400, y: 1070 } });
    const back = after(low, { type: 'press', at: at(low, 'task:register') });
    expect(back.windows.find((w) => w.name === 'register')?.minimised).toBe(false);
  });

  test('scroll within their content', () => {
    expect(after(fresh, { type: 'wheel', by: 1e6 }).scroll).toBeGreaterThan(0);
    expect(after(fresh, { type: 'wheel', by: 1e6 }, { type: 'wheel', by: -1e7 }).scroll).toBe(0);
  });
});

test('readings change every second and come from the seed', () => {
  const second = (n: number) => reading(createDesk(3, NOW + n), 0);
  expect(second(0)).toBe(second(999));
  expect(new Set([0, 1000, 2000, 3000, 4000].map(second)).size).toBeGreaterThan(1);
});

test('the pointer has a shape and a hot spot and is in no frame', () => {
  const over = after(fresh, { type: 'move', at: at(fresh, 'find') });
  expect(deskPointer(over)).toMatchObject({ shape: 'text' });
  expect(deskPointer(fresh)).toBeNull();
  expect(pixels(over).equals(pixels(fresh))).toBe(true);
});
