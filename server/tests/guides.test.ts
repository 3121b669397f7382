import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import sharp from 'sharp';
import { guideSchema, type StoredGuide } from '@/core/contracts/guide';
import { lookInputSchema } from '@/core/contracts/look';
import { guideFile } from '../guides/file';
import { addGuide, changeGuide, getGuide, listGuides, removeGuide } from '../guides/guides';
import { readyGuide } from '../guides/write';
import { encodeShot } from '../keep/encode';
import { addLook, listLooks, removeLook } from '../looks/looks';
import { changeShot } from '../shots/change';
import { getPaintable, getShot } from '../shots/rows';
import { binShot, eraseShot, restoreShot } from '../shots/store';
import { begin, finish, gradient } from './setup';
import { SIZE, number, cover, shot, seeds, stepOf } from './seeds';

beforeAll(begin);
afterAll(finish);
jest.setTimeout(120_000);

describe('a guide', () => {
  test('is made of shots in their order, listed, changed and removed', async () => {
    const { id } = await seeds();
    const read = await getGuide(id);
    expect(read).toMatchObject({ title: 'Ordering seeds', revision: 2 });
    expect(read.shots.map(({ state, discs }) => [state, discs.length])).toEqual([
      ['there', 0],
      ['there', 2],
      ['there', 0],
    ]);
    const [first] = (await listGuides()).filter((one) => one.id === id);
    expect(first).toMatchObject({ steps: 3, cover: { id: stepOf(read, 0).shot } });
    await removeGuide(id);
    await expect(getGuide(id)).rejects.toThrow('There is no such guide.');
    expect((await getShot(stepOf(read, 0).shot)).title).toBe('Form');
  });

  test('changed in two tabs: the second is told, with what is stored', async () => {
    const { id, revision } = await seeds();
    const [one, other] = await Promise.allSettled([
      changeGuide(id, { revision, title: 'One' }),
      changeGuide(id, { revision, title: 'Other' }),
    ]);
    const refused = [one, other].filter(({ status }) => status === 'rejected');
    expect(refused).toHaveLength(1);
    const [{ reason } = { reason: null }] = refused as PromiseRejectedResult[];
    expect(reason).toMatchObject({ status: 409, code: 'stale' });
    expect((reason as { more: { current: StoredGuide } }).more.current.revision).toBe(revision + 1);
  });

  test('of shots that are binned or not there is refused; what goes later is left out', async () => {
    const gone = await shot();
    await binShot(gone);
    await expect(addGuide({ shots: [gone] })).rejects.toThrow('There is no such shot.');
    const guide = await seeds();
    const { shot: second } = stepOf(guide, 1);
    await binShot(second);
    expect((await getGuide(guide.id)).shots[1]?.state).toBe('in the bin');
    const { material, left } = await readyGuide(guide.id);
    expect(left).toBe(1);
    expect(material.page.parts.map((part) => part.kind === 'step' && part.span)).toEqual([
      '1',
      false,
      '2',
    ]);
    await restoreShot(second);
    expect((await readyGuide(guide.id)).left).toBe(0);
    await binShot(second);
    await eraseShot(second);
    expect((await getGuide(guide.id)).shots[1]).toMatchObject({ state: 'gone', discs: [] });
  });

  test('numbers run on in the picture itself, also when it was just painted for another place', async () => {
    const { shot: second } = stepOf(await seeds(), 1);
    const [alone, again, later] = await Promise.all(
      [undefined, undefined, 2].map(async (first) => {
        const { bytes } = await encodeShot(await getPaintable(second), { format: 'png', first });
        return sharp(bytes).raw().toBuffer();
      }),
    );
    expect(again).toEqual(alone);
    expect(later).not.toEqual(alone);
  });

  test('takes up a changed shot, one look and one size for all', async () => {
    const guide = await seeds();
    const [look] = await listLooks();
    const small = { ...guide.guide, longest: 120, look: look?.id ?? null };
    await changeGuide(guide.id, { revision: guide.revision, guide: small });
    const pictures = [...(await readyGuide(guide.id)).material.pictures.values()];
    expect(pictures.map(({ width, height }) => Math.max(width, height))).toEqual([120, 120, 120]);
    const { shot: first } = stepOf(guide, 0);
    const { document, revision } = await getShot(first);
    const marks = [number('n', 'New', { x: 40, y: 40 })];
    await changeShot(first, { revision, document: { ...document, marks } });
    const again = (await readyGuide(guide.id)).material;
    expect(again.pictures.get(stepOf(guide, 0).id)?.png).not.toEqual(pictures[0]?.png);
    expect(again.page.parts[0]).toMatchObject({ numbers: [{ written: '1', caption: 'New' }] });
  });

  test('a look that was removed is none', async () => {
    const finish = { adjust: { on: 'picture' as const, grey: 100 } };
    const look = await addLook(lookInputSchema.parse({ name: 'For a while', finish }));
    const { id, revision, guide } = await seeds();
    await changeGuide(id, { revision, guide: { ...guide, look: look.id } });
    expect((await getGuide(id)).guide.look).toBe(look.id);
    await removeLook(look.id);
    expect((await getGuide(id)).guide.look).toBeNull();
    expect((await readyGuide(id)).left).toBe(0);
  });

  test('holds nothing of what is hidden: two frames that differ only there give the same files', async () => {
    const data = gradient(SIZE.width, SIZE.height);
    const other = new Uint8Array(data);
    for (let y = 62; y < 138; y += 1)
      for (let x = 102; x < 218; x += 1) other[(y * SIZE.width + x) * 3] = 7;
    expect(other).not.toEqual(data);
    const below = number('s', 'Secret 471147', { x: 130, y: 100 });
    const [one, two] = await Promise.all([shot([below, cover], data), shot([below, cover], other)]);
    const made = await addGuide({ title: 'Hidden', shots: [one] });
    const written = async (id: string) => {
      const now = await getGuide(made.id);
      const items = [{ kind: 'step', id: 's', shot: id, heading: 'H', caption: '{1}' }];
      await changeGuide(made.id, {
        revision: now.revision,
        guide: guideSchema.parse({ version: 1, items }),
      });
      const { bytes } = await guideFile(made.id, 'html');
      return {
        html: Buffer.from(bytes).toString(),
        pictures: (await readyGuide(made.id)).material.pictures,
      };
    };
    const [a, b] = [await written(one), await written(two)];
    expect(a).toEqual(b);
    expect(a.html).not.toContain('471147');
    expect((await getGuide(made.id)).shots[0]?.discs).toEqual([
      { counting: 'numbers', caption: '' },
    ]);
  });
});
