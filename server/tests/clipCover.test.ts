import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { untouched } from '@/core/document/view';
import { shotPageSchema } from '@/core/contracts/shot';
import { markSchema } from '@/core/marks/registry';
import * as one from '@/app/api/clips/[id]/route';
import { GET as list } from '@/app/api/shots/route';
import { GET as picture } from '@/app/api/shots/[id]/picture/route';
import { GET as thumbnail } from '@/app/api/shots/[id]/thumbnail/route';
import { changeShot } from '../shots/change';
import { film, HEIGHT, numberOn, WIDTH } from './clipFilms';
import { recorded } from './clipLib';
import { at, begin, finish, jsonRequest, request } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const COUNT = 30;

async function numberIn(answer: Response): Promise<number> {
  const image = sharp(Buffer.from(await answer.arrayBuffer())).removeAlpha();
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return numberOn(data, info.width, info.height, info.channels);
}

test('what is cut away from its start is in no picture that stands for it', async () => {
  const { id, marksRevision } = await recorded(film(COUNT, 'lossless'));
  const shown = async () => {
    const picked = picture(request('/x?format=png'), at({ id }));
    return [
      await numberIn(await picked),
      await numberIn(await thumbnail(request('/x'), at({ id }))),
    ];
  };
  const cut = async (revision: number, change: object) =>
    expect(
      (await one.PUT(jsonRequest('/x', 'PUT', { revision, ...change }), at({ id }))).status,
    ).toBe(200);
  const told = async () => {
    const { shots } = shotPageSchema.parse(await (await list(request('/x'), at({}))).json());
    const [{ cover, seconds = 0 } = {}] = shots.filter((shot) => shot.id === id);
    return { cover, seconds: Math.round(15 * seconds) };
  };
  expect(await shown()).toEqual([0, 0]);
  expect(await told()).toEqual({ cover: 0, seconds: COUNT - 1 });
  await cut(1, {
    cuts: {
      away: [
        { from: 0, to: 7 },
        { from: 12, to: 20 },
      ],
    },
  });
  expect(await shown()).toEqual([7, 7]);
  expect(await told()).toEqual({ cover: 7, seconds: COUNT - 15 });
  // What lies on that picture, and nothing that lies on the first.
  const box = { kind: 'paintOut', x: 0, y: 0, width: WIDTH, height: 48, paintOut: 'colour' };
  const onFirst = { ...box, id: 'first', colour: '#D55E00', time: { from: 0, to: 3 } };
  const onCover = { ...box, id: 'cover', colour: '#FFFFFF', time: { from: 7, to: 9 } };
  const marks = [onFirst, onCover].map((mark) => markSchema.parse(mark));
  const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks };
  await changeShot(id, { revision: marksRevision, document });
  expect(await shown()).toEqual([1023, 1023]);
  await cut(2, { step: 0 });
  expect(await told()).toEqual({ cover: 0, seconds: COUNT });
  const answer = await picture(request('/x?format=png'), at({ id }));
  const first = await sharp(Buffer.from(await answer.arrayBuffer()))
    .removeAlpha()
    .raw()
    .toBuffer();
  expect([...first.subarray(0, 3)]).toEqual([0xd5, 0x5e, 0x00]);
}, 60_000);
