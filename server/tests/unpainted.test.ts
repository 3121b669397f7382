import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { ShotDocument } from '@/core/document/document';
import { formatNames } from '@/core/contracts/format';
import { markSchema } from '@/core/marks/registry';
import { encodeShot, plainPicture } from '../keep/encode';
import { formats } from '../formats';
import { unpainted } from '../paint/flatten';
import { getPaintable, type Paintable } from '../shots/rows';
import { begin, finish, storeTelling } from './setup';

let shot: Paintable;
beforeAll(async () => {
  await begin();
  shot = await getPaintable(await storeTelling());
});
afterAll(finish);
jest.setTimeout(90_000);

/** Switched off, it is not seen; but a shot with it counts as marked, so that all of it is painted. */
const unseen = markSchema.parse({
  ...{ id: 'unseen', kind: 'dim', off: true, dimming: 0.5 },
  bright: [{ x: 10, y: 10, width: 40, height: 30, hole: 'box' }],
});

let revision = 100;
/** The shot with another document, and a revision of its own, since pictures are kept by it. */
const changed = (document: Partial<ShotDocument>): Paintable => ({
  ...shot,
  revision: (revision += 1),
  document: { ...shot.document, ...document },
});

const crop = { x: 31, y: 17, width: 101, height: 77 };

test.each(formatNames.filter((name) => formats[name].write))(
  '%s: straight from the frame it is, to the byte, what painting gives; whole and cut',
  async (format) => {
    for (const view of [shot.document.view, { crop }]) {
      const bare = changed({ view });
      const marked = changed({ view, marks: [unseen] });
      expect(unpainted(bare)).not.toBeNull();
      expect(unpainted(marked)).toBeNull();
      const [straight, painted] = [
        await encodeShot(bare, { format, quality: 70 }),
        await encodeShot(marked, { format, quality: 70 }),
      ];
      expect(straight).toMatchObject({ width: view.crop.width, height: view.crop.height });
      expect(Buffer.from(straight.bytes).equals(painted.bytes)).toBe(true);
      expect({ ...straight, bytes: null }).toEqual({ ...painted, bytes: null });
    }
  },
);

test('as a plain PNG, too, for clipboards and links', async () => {
  const view = { crop };
  const straight = await plainPicture(changed({ view }));
  const painted = await plainPicture(changed({ view, marks: [unseen] }));
  expect(straight).toMatchObject({ width: crop.width, height: crop.height });
  expect(straight.png.equals(painted.png)).toBe(true);
  expect(await plainPicture(changed({ view }), { percent: 50 })).toMatchObject({ width: 51 });
});

test('what is turned, cut to a shape, marked or partly transparent is painted', () => {
  const { view } = shot.document;
  const turn = { quarters: 1 as const, mirrored: false, angle: 0 };
  expect(unpainted(changed({ view: { ...view, turn } }))).toBeNull();
  expect(unpainted(changed({ view: { ...view, shape: { kind: 'oval' } } }))).toBeNull();
  expect(unpainted({ ...shot, opaque: false })).toBeNull();
});

test('a palette, another size and a limit of bytes look at the pixels themselves', async () => {
  const palette = await encodeShot(shot, { format: 'png', options: { palette: true } });
  const half = await encodeShot(shot, { format: 'png', percent: 50 });
  const least = await encodeShot(shot, { format: 'jpeg', maxBytes: 6_000 });
  expect(palette.bytes.length).toBeGreaterThan(0);
  expect(half.width).toBe(Math.round(shot.width / 2));
  expect(least.bytes.length).toBeLessThanOrEqual(6_000);
});

test.each(['picture', 'all'] as const)(
  'adjusted on %s, without marks it is what painting gives as well',
  async (on) => {
    const finish = { adjust: { on, contrast: 130, saturation: 60, sharpened: 90 } };
    const bare = changed({ view: { crop }, finish });
    expect(unpainted(bare)).toBeNull();
    const [straight, painted] = [
      await encodeShot(bare, { format: 'png' }),
      await encodeShot(changed({ view: { crop }, finish, marks: [unseen] }), { format: 'png' }),
    ];
    expect(Buffer.from(straight.bytes).equals(painted.bytes)).toBe(true);
    const plain = await encodeShot(changed({ view: { crop } }), { format: 'png' });
    expect(Buffer.from(straight.bytes).equals(plain.bytes)).toBe(false);
  },
);
