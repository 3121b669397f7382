import { createCanvas } from '@napi-rs/canvas';
import { fillText, layoutText } from '@/core/drawing/textLayout';
import type { Face } from '@/core/drawing/names';
import type { Shaper } from '@/core/drawing/shaper';
import type { PrivateKind } from '@/core/recognition/kinds';
import type { KnownThing } from './score';
import { decoys, things } from './things';

interface Style {
  name: string;
  face: Face;
  size: number;
  ink: string;
  ground: string;
  band: string;
}

const styles: readonly Style[] = [
  { name: 'plain 14', face: 'plain', size: 14, ink: '#1C2B2A', ground: '#FFFEFA', band: '#EFECE3' },
  {
    name: 'plain 18, dark',
    face: 'plain',
    size: 18,
    ink: '#E9E6DC',
    ground: '#1B2423',
    band: '#26302F',
  },
  { name: 'fixed 16', face: 'fixed', size: 16, ink: '#16324A', ground: '#F4F7FA', band: '#DDE7F0' },
  {
    name: 'display 20',
    face: 'display',
    size: 20,
    ink: '#3B2A12',
    ground: '#FBF4E4',
    band: '#F2E3C0',
  },
];

const rows: readonly (readonly PrivateKind[])[] = [
  ['email', 'phone'],
  ['card', 'ip'],
  ['iban'],
  ['key'],
  ['ip', 'email'],
  ['phone', 'card'],
];

export interface Drawn {
  name: string;
  png: Buffer;
  known: KnownThing[];
}

/** Two screens of each style: rows of labels, private things and decoys, drawn by our own painter. */
export async function drawnScreens(shaper: Shaper): Promise<Drawn[]> {
  const screens: Drawn[] = [];
  for (const [i, style] of styles.entries()) {
    for (const seed of [1, 2]) screens.push(await draw(style, shaper, 40 + i * 4 + seed));
  }
  return screens;
}

async function draw(style: Style, shaper: Shaper, seed: number): Promise<Drawn> {
  const { face, size, ink, ground, band } = style;
  const [width, height] = [1000, 560];
  const canvas = createCanvas(width, height);
  const surface = canvas.getContext('2d');
  surface.fillStyle = ground;
  surface.fillRect(0, 0, width, height);
  const thing = things(seed);
  const known: KnownThing[] = [];
  const words = (text: string, x: number, y: number) => {
    const block = layoutText(shaper, text, { face, weight: 400, size });
    fillText(surface, block, x, y, ink);
    return { x, y, width: block.width, height: block.height };
  };
  let y = 24;
  rows.forEach((kinds, row) => {
    if (row % 2 === 0) {
      surface.fillStyle = band;
      surface.fillRect(0, y - 8, width, size * 2.2);
    }
    words(decoys[(seed + row * 2) % decoys.length] ?? '', 24, y);
    let x = 330;
    for (const kind of kinds) {
      const { text } = thing(kind);
      known.push({ kind, text, boxes: [words(text, x, y)] });
      x += 340;
    }
    y += size * 3.4;
  });
  return { name: `${style.name}, ${seed}`, png: await canvas.encode('png'), known };
}
