import type { Finish } from '@/core/finish/finish';
import { parts } from '@/core/finish/surround/surround';
import type { MarkInput } from '@/core/marks/registry';
import type { FormatName } from '@/core/contracts/format';
import type { Rect } from '@/core/geometry/rect';

type Tag = 'Faults' | 'Seeds' | 'Beds' | 'Winter';

/** One shot of the demo: what was on the desk, what was chosen and what was said about it. */
export interface DemoShot {
  title: string;
  daysAgo: number;
  time: string;
  display: 'Left' | 'Right' | 'all';
  /** Done on the desk before taking: hot areas by name. */
  clicks?: ['click' | 'hover' | 'rest', string][];
  crop?: Rect;
  marks?: MarkInput[];
  tags?: Tag[];
  /** For people who do not see it. */
  description?: string;
  finish?: Finish;
  /** The register in its whole length. */
  long?: true;
  /** Not of the desk, but this page of the practice web site. */
  page?: string;
  keep?: ('Guides' | 'Faults' | 'Records' | 'Web')[];
  /** Formats in which it is kept in Guides besides. */
  also?: FormatName[];
}

/** As a note in the garden book. */
const fieldNote: Finish = {
  surround: {
    border: { width: 10, colour: '#FFFFFF', corners: 0 },
    shadow: { ...parts.shadow.first, y: 5, blur: 16, strength: 35 },
    background: { colours: ['#EFE6D2'], run: 'down', room: 48 },
    caption: { ...parts.caption.first, text: '{title}\n{time}', face: 'hand', plate: null },
  },
};
/** With soft corners on a quiet green. */
const rounded: Finish = {
  surround: {
    border: { width: 1, colour: '#C6D2CB', corners: 14 },
    shadow: parts.shadow.first,
    background: { colours: ['#DCE9E2', '#88B7A3'], run: 'slant', room: 56 },
  },
};

const VERMILLION = '#D55E00';
const BLUE = '#0072B2';
const YELLOW = '#F0E442';
const INK = '#1C2B2A';

const arrow = (
  id: string,
  from: [number, number],
  to: [number, number],
  bend: [number, number] | null = null,
): MarkInput => ({
  id,
  kind: 'arrow',
  from: { x: from[0], y: from[1] },
  to: { x: to[0], y: to[1] },
  bend: bend && { x: bend[0], y: bend[1] },
  colour: VERMILLION,
  thickness: 7,
  heads: 'end',
  dashed: false,
});

const text = (id: string, x: number, y: number, words: string, textSize = 22): MarkInput => ({
  id,
  kind: 'text',
  x,
  y,
  width: 420,
  text: words,
  colour: INK,
  textSize,
  bold: false,
  plate: '#FFFFFF',
});

const box = (id: string, r: Rect, colour = VERMILLION): MarkInput => ({
  id,
  kind: 'box',
  ...r,
  colour,
  outline: 4,
  fill: null,
  fillOpacity: 1,
  dashed: false,
  corner: 6,
});

const oval = (id: string, r: Rect, colour = BLUE): MarkInput => ({
  id,
  kind: 'oval',
  ...r,
  colour,
  outline: 4,
  fill: null,
  fillOpacity: 1,
  dashed: false,
});

const highlight = (id: string, x: number, y: number, length: number): MarkInput => ({
  id,
  kind: 'highlighter',
  points: [
    [x, y, 0.5],
    [x + length, y, 0.5],
  ],
  colour: YELLOW,
  thickness: 24,
});

const pen = (id: string, points: [number, number][]): MarkInput => ({
  id,
  kind: 'pen',
  tip: 'felt',
  points: points.map(([x, y]) => [x, y, 0.5]),
  colour: BLUE,
  thickness: 5,
});

/** Places of windows in a picture of their display. */
const orderWindow: Rect = { x: 640, y: 250, width: 620, height: 430 };
const registerWindow: Rect = { x: 48, y: 46, width: 700, height: 560 };
const sensorsWindow: Rect = { x: 120, y: 70, width: 760, height: 430 };

const slip = (title: string, daysAgo: number, time: string, keep?: DemoShot['keep']): DemoShot => ({
  title,
  daysAgo,
  time,
  display: 'Left',
  crop: { x: 560, y: 200, width: 780, height: 560 },
  clicks: [['click', 'slip']],
  marks: [
    highlight('conf', 806, 350, 118),
    { id: 'mail', kind: 'blur', x: 808, y: 362, width: 160, height: 22, strength: 7 },
    { id: 'card', kind: 'blocks', x: 808, y: 387, width: 160, height: 22, strength: 8 },
    { id: 'first', kind: 'number', at: { x: 960, y: 350 }, value: 1, colour: BLUE, size: 26 },
    { id: 'second', kind: 'number', at: { x: 640, y: 567 }, value: 2, colour: BLUE, size: 26 },
    arrow('point', [1000, 690], [776, 578], [-30, 34]),
    text('say', 1004, 690, 'Print the slip before closing'),
  ],
  tags: ['Seeds'],
  description: 'The order after it was sent: its confirmation number, and the button Print slip.',
  keep,
});

const fault = (daysAgo: number, time: string, keep?: DemoShot['keep']): DemoShot => ({
  title: 'Sensor 14, code E-207',
  daysAgo,
  time,
  display: 'Right',
  crop: sensorsWindow,
  marks: [
    box('code', { x: 140, y: 350, width: 720, height: 100 }),
    text('say', 430, 90, 'No answer since 09:40', 30),
  ],
  tags: ['Faults'],
  description: 'The list of sensors: sensor 14 gives no answer since 09:40, code E-207.',
  keep,
});

const register = (
  title: string,
  daysAgo: number,
  time: string,
  extra: Partial<DemoShot> = {},
): DemoShot => ({
  title,
  daysAgo,
  time,
  display: 'Left',
  crop: registerWindow,
  ...extra,
});

const menu = (
  title: string,
  name: 'Beds' | 'Labels',
  daysAgo: number,
  time: string,
  extra: Partial<DemoShot> = {},
): DemoShot =>
  register(title, daysAgo, time, {
    clicks: [
      ['click', `menu:${name}`],
      ['hover', 'entry:1'],
    ],
    ...(name === 'Beds' && { tags: ['Beds'] }),
    ...extra,
  });

const notes = (
  title: string,
  daysAgo: number,
  time: string,
  extra: Partial<DemoShot> = {},
): DemoShot => ({
  title,
  daysAgo,
  time,
  display: 'Right',
  clicks: [['click', 'window:notes']],
  ...extra,
});

const whole = (
  title: string,
  daysAgo: number,
  time: string,
  display: DemoShot['display'] = 'Left',
): DemoShot => ({
  title,
  daysAgo,
  time,
  display,
});

/** Three weeks at Fernhollow Botanic Garden, oldest first. */
export const demoShots: readonly DemoShot[] = [
  whole('First look at the new desk', 20, '09:12', 'all'),
  register('Plant register before the count', 20, '10:05', { keep: ['Records'] }),
  notes('Notes for Sorrel', 19, '08:50'),
  menu('Where the beds menu is', 'Beds', 19, '11:31', {
    marks: [arrow('a', [420, 60], [292, 66])],
    keep: ['Guides'],
  }),
  fault(18, '09:44', ['Faults']),
  whole('Both displays after the move', 17, '14:20', 'all'),
  slip('Seed order slip', 16, '10:02', ['Guides']),
  register('Sea holly row', 16, '15:47', {
    tags: ['Beds'],
    marks: [highlight('row', 62, 261, 560)],
    keep: ['Records'],
  }),
  menu('Print a label', 'Labels', 15, '09:20', {
    marks: [arrow('a', [600, 250], [520, 165], [20, -20]), text('t', 430, 255, 'Preview it first')],
    keep: ['Guides', 'Web'],
    also: ['svg', 'pdf'],
  }),
  notes('Frost tonight', 14, '16:10', {
    marks: [oval('o', { x: 90, y: 680, width: 480, height: 60 })],
    tags: ['Winter'],
  }),
  fault(13, '09:41', ['Faults']),
  register('Wood sorrel has no check date', 13, '11:18', {
    marks: [
      oval('o', { x: 470, y: 292, width: 110, height: 38 }),
      text('t', 300, 560, 'Who checked this one?'),
    ],
  }),
  slip('Seed order slip, second try', 12, '10:30'),
  whole('Right display in the morning', 12, '08:31', 'Right'),
  menu('North bank is covered', 'Beds', 11, '13:00', { tags: ['Beds', 'Winter'] }),
  register('Water the marsh marigold', 11, '14:26', {
    clicks: [['hover', 'row:0']],
    marks: [arrow('a', [560, 260], [662, 190])],
    keep: ['Guides'],
    also: ['gif', 'bmp', 'avif'],
  }),
  notes('Key to the nursery', 10, '09:09', { keep: ['Records'] }),
  fault(9, '10:15'),
  slip('Slip for the shop', 9, '15:15', ['Guides', 'Web']),
  register('Count of the pond edge', 8, '10:40', {
    marks: [
      pen('p', [
        [66, 200],
        [90, 214],
        [130, 160],
      ]),
      pen('q', [
        [66, 400],
        [90, 414],
        [130, 360],
      ]),
    ],
  }),
  whole('Desk on Sunday', 8, '12:00', 'Left'),
  menu('Retire a label', 'Labels', 7, '09:55'),
  register('Row button', 7, '11:02', { clicks: [['hover', 'row:4']], keep: ['Guides'] }),
  notes('Labels are printed', 6, '14:44'),
  fault(6, '09:40', ['Faults']),
  slip('Order for Rowan', 5, '10:21'),
  register('Guelder rose moved', 5, '15:33', {
    tags: ['Beds', 'Winter'],
    marks: [box('b', { x: 56, y: 272, width: 600, height: 28 }, BLUE)],
    keep: ['Records'],
  }),
  whole('Both displays, bed map open', 4, '09:00', 'all'),
  menu('Long border cut back', 'Beds', 4, '13:37', { tags: ['Beds', 'Winter'] }),
  notes('What Wren asked', 3, '10:10'),
  register('Tooltip of the labels menu', 3, '11:45', {
    clicks: [
      ['hover', 'menu:Labels'],
      ['rest', 'menu:Labels'],
    ],
  }),
  fault(3, '09:42', ['Faults']),
  slip('Seed order – slip', 2, '10:58', ['Guides']),
  { ...register('Spindle without a date', 2, '14:02'), finish: fieldNote },
  {
    title: 'Plant register, all 214 plants',
    daysAgo: 2,
    time: '11:20',
    display: 'Left',
    long: true,
    tags: ['Beds'],
    description: 'The whole plant register: 214 accessions with name, bed and last check.',
  },
  {
    title: 'Seed list of the garden’s site',
    daysAgo: 2,
    time: '15:25',
    display: 'Left',
    page: 'seeds',
    marks: [box('b', { x: 28, y: 322, width: 904, height: 40 }, BLUE)],
    tags: ['Seeds'],
  },
  {
    ...whole('Right display at noon', 2, '12:11', 'Right'),
    finish: { adjust: { on: 'picture', grey: 100, contrast: 115 } },
  },
  menu('Preview the label', 'Labels', 1, '09:31', {
    marks: [text('t', 60, 560, 'Hold Alt for dark stock')],
  }),
  { ...register('Plant register, beds list', 1, '13:40'), finish: rounded },
  fault(1, '13:47', ['Faults']),
  {
    title: 'Order confirmation',
    tags: ['Seeds'],
    daysAgo: 0,
    time: '00:15',
    display: 'Left',
    crop: orderWindow,
    marks: [highlight('conf', 806, 350, 118)],
    keep: ['Records'],
  },
  slip('Seed order – slip before closing', 0, '00:40', ['Guides', 'Web']),
];
