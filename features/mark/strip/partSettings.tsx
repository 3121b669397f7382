import type { ReactNode } from 'react';
import { runs, type Background } from '@/core/finish/surround/background';
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
type Field<N extends PartName> = keyof Of<N> & string;

/** The settings of one part as rows; what is set is set there. */
function rowsOf<N extends PartName>(name: N) {
  const set = (field: Field<N>, value: unknown) =>
    setPart(name, { [field]: value } as Partial<Of<N>>);
  return {
    /** A slider; what a program set beyond it can be seen, too. */
    range: (
      field: Field<N>,
      label: string,
      value: number,
      [min, max]: readonly [number, number],
      { unit = ' px', per = 1 } = {},
    ): Row => [
      field,
      <Range
        key={field}
        label={label}
        value={Math.round(value * per)}
        min={Math.min(min, value * per)}
        max={Math.max(max, value * per)}
        unit={unit}
        width="w-16"
        onChange={(next) => set(field, next / per)}
      />,
    ],
    choice: <T extends string>(
      field: Field<N>,
      label: string,
      value: T,
      options: readonly (readonly [T, string])[],
    ): Row => [
      field,
      <Choice
        key={field}
        label={label}
        value={value}
        options={options}
        onChange={(next) => set(field, next)}
      />,
    ],
    press: (field: Field<N>, label: string, on: boolean): Row => [
      field,
      <Press key={field} label={label} on={on} onChange={(next) => set(field, next)} />,
    ],
    /** @param none what having no colour is called, where there may be none */
    colour: (field: Field<N>, label: string, value: string | null, none?: string): Row => [
      field,
      <SecondColour
        key={field}
        label={label}
        value={value}
        none={none}
        onNone={none === undefined ? undefined : () => set(field, null)}
        onChange={(hex) => set(field, hex)}
      />,
    ],
  };
}

const faceNames = { plain: 'plain', display: 'display', hand: 'by hand', fixed: 'fixed width' };
const faceOptions = faces.map((face) => [face, faceNames[face]] as const);
const alignNames = { start: 'at the start', centre: 'in the middle', end: 'at the end' };
const runNames = { down: 'down', across: 'across', slant: 'slanting' };

const fold: Show<'fold'> = ({ columns, gap }) => [
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
  rowsOf('fold').range('gap', 'Gap', gap, [0, 120]),
];

const sides: readonly (readonly [Side, string])[] = [
  ['top', 'Top'],
  ['right', 'Right'],
  ['bottom', 'Bottom'],
  ['left', 'Left'],
];

const ragged: Show<'ragged'> = (value) => [
  ...sides.map(([side, label]) =>
    rowsOf('ragged').press(side, label, tornSides(value).includes(side)),
  ),
  rowsOf('ragged').range('depth', 'Depth', value.depth, [1, 80]),
  [
    'anew',
    <Button key="anew" onClick={() => setPart('ragged', { seed: (value.seed + 1) % 10_000 })}>
      Tear anew
    </Button>,
  ],
];

const border: Show<'border'> = ({ width, colour, corners }) => [
  rowsOf('border').range('width', 'Width', width, [0, 60]),
  rowsOf('border').colour('colour', 'Colour', colour),
  rowsOf('border').range('corners', 'Corners', corners, [0, 120]),
];

const tilt: Show<'tilt'> = ({ across, up }) => [
  rowsOf('tilt').range('across', 'Left–right', across, [-45, 45], { unit: '°' }),
  rowsOf('tilt').range('up', 'Up–down', up, [-45, 45], { unit: '°' }),
];

const shadow: Show<'shadow'> = ({ x, y, blur, strength, colour }) => [
  rowsOf('shadow').range('y', 'Down', y, [-60, 60]),
  rowsOf('shadow').range('x', 'Right', x, [-60, 60]),
  rowsOf('shadow').range('blur', 'Blur', blur, [0, 120]),
  rowsOf('shadow').range('strength', 'Strength', strength, [1, 100], { unit: ' %' }),
  rowsOf('shadow').colour('colour', 'Colour', colour),
];

const ratios: readonly string[] = ['1:1', '4:3', '3:2', '16:9', '2:1', '3:4', '9:16'];
const AS_IT_IS = 'as it is';

function ratioOf(words: string): Background['ratio'] {
  const [width, height] = words.split(':').map(Number);
  return width && height ? { width, height } : undefined;
}

function ratioRow({ ratio }: Background): Row {
  const words = ratio ? `${ratio.width}:${ratio.height}` : AS_IT_IS;
  const known = [...new Set([AS_IT_IS, ...ratios, words])];
  return [
    'ratio',
    <Choice
      key="ratio"
      label="Ratio"
      value={words}
      options={known.map((r) => [r, r] as const)}
      onChange={(chosen) => setPart('background', { ratio: ratioOf(chosen) })}
    />,
  ];
}

/** None, one or two of its colours, of which the second runs from the first. */
const colourRow = (
  label: string,
  value: string | undefined,
  none: string,
  colours: (hex: string | null) => string[],
): Row => [
  label,
  <SecondColour
    key={label}
    label={label}
    value={value ?? null}
    none={none}
    onNone={() => setPart('background', { colours: colours(null) })}
    onChange={(hex) => setPart('background', { colours: colours(hex) })}
  />,
];

const background: Show<'background'> = (value) => {
  const [first, second] = value.colours;
  const only = (...hexes: (string | null | undefined)[]) =>
    hexes.filter((hex) => typeof hex === 'string');
  const rows = [
    rowsOf('background').range('room', 'Room', value.room, [0, 300]),
    colourRow('Colour', first, 'Transparent', (hex) => (hex ? only(hex, second) : [])),
  ];
  if (first !== undefined) {
    rows.push(colourRow('Runs to', second, 'One colour', (hex) => only(first, hex)));
  }
  if (second !== undefined) {
    const options = runs.map((run) => [run, runNames[run]] as const);
    rows.push(rowsOf('background').choice('run', 'Runs', value.run, options));
  }
  return [...rows, ratioRow(value)];
};

const caption: Show<'caption'> = (value) => {
  const { range, choice, press, colour } = rowsOf('caption');
  return [
    ['words', <CaptionWords key="words" text={value.text} />],
    choice('at', 'Stands', value.at, [
      ['below', 'below'],
      ['above', 'above'],
    ]),
    range('size', 'Size', value.size, [8, 96]),
    press('bold', 'Bold', value.bold),
    choice('face', 'Face', value.face, faceOptions),
    choice(
      'align',
      'Lines',
      value.align,
      aligns.map((align) => [align, alignNames[align]] as const),
    ),
    colour('colour', 'Colour', value.colour),
    colour('plate', 'Plate', value.plate, 'The background'),
  ];
};

const watermark: Show<'watermark'> = (value) => {
  const { range, choice, press, colour } = rowsOf('watermark');
  const isWords = value.picture === undefined;
  const words: Row = [
    'words',
    <WordsInput
      key="words"
      label="Words"
      value={value.text}
      most={200}
      onCommit={(text) => setPart('watermark', { text })}
    />,
  ];
  const where = choice(
    'place',
    'Place',
    value.place,
    places.map((place) => [place, place] as const),
  );
  return [
    ...(isWords ? [words] : []),
    ['picture', <WatermarkPicture key="picture" held={value.picture} />],
    range('size', 'Size', value.size, [1, 100], { unit: ' %' }),
    range('opacity', 'Opacity', value.opacity, [5, 100], { unit: ' %', per: 100 }),
    press('tiled', 'All over', value.tiled),
    ...(value.tiled ? [] : [where]),
    ...(isWords
      ? [colour('colour', 'Colour', value.colour), choice('face', 'Face', value.face, faceOptions)]
      : []),
  ];
};

/** The settings of each part, those that are wanted most first. */
export const partSettings: { readonly [N in PartName]: Show<N> } = {
  ...{ fold, ragged, border, tilt },
  ...{ shadow, background, caption, watermark },
};
