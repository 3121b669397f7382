import type { ReactNode } from 'react';
import { runs } from '@/core/finish/surround/background';
import { places } from '@/core/finish/surround/watermark';
import { tornSides, type Side } from '@/core/finish/surround/ragged';
import type { PartName, Surround } from '@/core/finish/surround/surround';
import { aligns, faces } from '@/core/drawing/names';
import { Button } from '../../ui/Button';
import { NumberInput } from '../../ui/NumberInput';
import { Range } from '../../ui/Range';
import { setPart } from '../fit/surrounding';
import { SecondColour } from './Colours';
import { Choice, Press } from './controls';
import { CaptionWords } from './CaptionWords';
import { WatermarkPicture } from './WatermarkPicture';
import { WordsInput } from './WordsInput';

/** A setting by a key of its own. */
type Row = [string, ReactNode];
type Of<N extends PartName> = NonNullable<Surround[N]>;
type Show<N extends PartName> = (value: Of<N>) => Row[];

interface Extent {
  min: number;
  max: number;
  unit?: string;
}

/** A slider of a number; what a program set beyond it can be seen, too. */
function range<N extends PartName>(
  name: N,
  field: keyof Of<N> & string,
  label: string,
  value: number,
  { min, max, unit = ' px' }: Extent,
): Row {
  return [
    field,
    <Range
      key={field}
      label={label}
      value={value}
      min={Math.min(min, value)}
      max={Math.max(max, value)}
      unit={unit}
      width="w-16"
      onChange={(next) => setPart(name, { [field]: next } as Partial<Of<N>>)}
    />,
  ];
}

const faceNames = { plain: 'plain', display: 'display', hand: 'by hand', fixed: 'fixed width' };
const alignNames = { start: 'at the start', centre: 'in the middle', end: 'at the end' };
const runNames = { down: 'down', across: 'across', slant: 'slanting' };

const ratios = ['1:1', '4:3', '3:2', '16:9', '2:1', '3:4', '9:16'] as const;
const AS_IT_IS = 'as it is';

function ratioOf(words: string): { width: number; height: number } | undefined {
  const [width, height] = words.split(':').map(Number);
  return width && height ? { width, height } : undefined;
}

const ragged: Show<'ragged'> = (value) => [
  ...(['top', 'right', 'bottom', 'left'] as const).map((side: Side): Row => [
    side,
    <Press
      key={side}
      label={side[0]?.toUpperCase() + side.slice(1)}
      on={tornSides(value).includes(side)}
      onChange={(on) => setPart('ragged', { [side]: on })}
    />,
  ]),
  range('ragged', 'depth', 'Depth', value.depth, { min: 1, max: 80 }),
  [
    'anew',
    <Button key="anew" onClick={() => setPart('ragged', { seed: (value.seed + 1) % 10_000 })}>
      Tear anew
    </Button>,
  ],
];

const border: Show<'border'> = (value) => [
  range('border', 'width', 'Width', value.width, { min: 0, max: 60 }),
  [
    'colour',
    <SecondColour
      key="colour"
      label="Colour"
      value={value.colour}
      onChange={(colour) => setPart('border', { colour })}
    />,
  ],
  range('border', 'corners', 'Corners', value.corners, { min: 0, max: 120 }),
];

const shadow: Show<'shadow'> = (value) => [
  range('shadow', 'y', 'Down', value.y, { min: -60, max: 60 }),
  range('shadow', 'x', 'Right', value.x, { min: -60, max: 60 }),
  range('shadow', 'blur', 'Blur', value.blur, { min: 0, max: 120 }),
  range('shadow', 'strength', 'Strength', value.strength, { min: 1, max: 100, unit: ' %' }),
  [
    'colour',
    <SecondColour
      key="colour"
      label="Colour"
      value={value.colour}
      onChange={(colour) => setPart('shadow', { colour })}
    />,
  ],
];

const background: Show<'background'> = ({ colours, run, room, ratio }) => {
  const [first, second] = colours;
  const words = ratio ? `${ratio.width}:${ratio.height}` : AS_IT_IS;
  const known: readonly string[] = [AS_IT_IS, ...ratios];
  return [
    range('background', 'room', 'Room', room, { min: 0, max: 300 }),
    [
      'colour',
      <SecondColour
        key="colour"
        label="Colour"
        value={first ?? null}
        none="Transparent"
        onNone={() => setPart('background', { colours: [] })}
        onChange={(hex) => setPart('background', { colours: second ? [hex, second] : [hex] })}
      />,
    ],
    ...(first === undefined
      ? []
      : ([
          [
            'to',
            <SecondColour
              key="to"
              label="Runs to"
              value={second ?? null}
              none="One colour"
              onNone={() => setPart('background', { colours: [first] })}
              onChange={(hex) => setPart('background', { colours: [first, hex] })}
            />,
          ],
        ] satisfies Row[])),
    ...(second === undefined
      ? []
      : ([
          [
            'run',
            <Choice
              key="run"
              label="Runs"
              value={run}
              options={runs.map((name) => [name, runNames[name]] as const)}
              onChange={(name) => setPart('background', { run: name })}
            />,
          ],
        ] satisfies Row[])),
    [
      'ratio',
      <Choice
        key="ratio"
        label="Ratio"
        value={words}
        options={(known.includes(words) ? known : [...known, words]).map((r) => [r, r] as const)}
        onChange={(chosen) => setPart('background', { ratio: ratioOf(chosen) })}
      />,
    ],
  ];
};

const caption: Show<'caption'> = (value) => [
  ['words', <CaptionWords key="words" text={value.text} />],
  [
    'at',
    <Choice
      key="at"
      label="Stands"
      value={value.at}
      options={[
        ['below', 'below'],
        ['above', 'above'],
      ]}
      onChange={(at) => setPart('caption', { at })}
    />,
  ],
  range('caption', 'size', 'Size', value.size, { min: 8, max: 96 }),
  [
    'bold',
    <Press
      key="bold"
      label="Bold"
      on={value.bold}
      onChange={(bold) => setPart('caption', { bold })}
    />,
  ],
  [
    'face',
    <Choice
      key="face"
      label="Face"
      value={value.face}
      options={faces.map((face) => [face, faceNames[face]] as const)}
      onChange={(face) => setPart('caption', { face })}
    />,
  ],
  [
    'align',
    <Choice
      key="align"
      label="Lines"
      value={value.align}
      options={aligns.map((align) => [align, alignNames[align]] as const)}
      onChange={(align) => setPart('caption', { align })}
    />,
  ],
  [
    'colour',
    <SecondColour
      key="colour"
      label="Colour"
      value={value.colour}
      onChange={(colour) => setPart('caption', { colour })}
    />,
  ],
  [
    'plate',
    <SecondColour
      key="plate"
      label="Plate"
      value={value.plate}
      none="The background"
      onNone={() => setPart('caption', { plate: null })}
      onChange={(plate) => setPart('caption', { plate })}
    />,
  ],
];

const watermark: Show<'watermark'> = (value) => [
  ...(value.picture === undefined
    ? ([
        [
          'words',
          <WordsInput
            key="words"
            label="Words"
            value={value.text}
            most={200}
            onCommit={(text) => setPart('watermark', { text })}
          />,
        ],
      ] satisfies Row[])
    : []),
  ['picture', <WatermarkPicture key="picture" held={value.picture} />],
  range('watermark', 'size', 'Size', value.size, { min: 1, max: 100, unit: ' %' }),
  [
    'opacity',
    <Range
      key="opacity"
      label="Opacity"
      value={Math.round(value.opacity * 100)}
      min={5}
      max={100}
      unit=" %"
      width="w-16"
      onChange={(next) => setPart('watermark', { opacity: next / 100 })}
    />,
  ],
  [
    'tiled',
    <Press
      key="tiled"
      label="All over"
      on={value.tiled}
      onChange={(tiled) => setPart('watermark', { tiled })}
    />,
  ],
  ...(value.tiled
    ? []
    : ([
        [
          'place',
          <Choice
            key="place"
            label="Place"
            value={value.place}
            options={places.map((place) => [place, place] as const)}
            onChange={(place) => setPart('watermark', { place })}
          />,
        ],
      ] satisfies Row[])),
  ...(value.picture === undefined
    ? ([
        [
          'colour',
          <SecondColour
            key="colour"
            label="Colour"
            value={value.colour}
            onChange={(colour) => setPart('watermark', { colour })}
          />,
        ],
        [
          'face',
          <Choice
            key="face"
            label="Face"
            value={value.face}
            options={faces.map((face) => [face, faceNames[face]] as const)}
            onChange={(face) => setPart('watermark', { face })}
          />,
        ],
      ] satisfies Row[])
    : []),
];

/** The settings of each part, those that are wanted most first. */
export const partSettings: { readonly [N in PartName]: Show<N> } = {
  fold: ({ columns, gap }) => [
    [
      'columns',
      <NumberInput
        key="columns"
        label="Columns"
        value={columns}
        min={2}
        max={12}
        onCommit={(next) => setPart('fold', { columns: Math.round(next) })}
      />,
    ],
    range('fold', 'gap', 'Gap', gap, { min: 0, max: 120 }),
  ],
  ragged,
  border,
  tilt: ({ across, up }) => [
    range('tilt', 'across', 'Left–right', across, { min: -45, max: 45, unit: '°' }),
    range('tilt', 'up', 'Up–down', up, { min: -45, max: 45, unit: '°' }),
  ],
  shadow,
  background,
  caption,
  watermark,
};
