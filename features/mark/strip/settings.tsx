import type { ReactNode } from 'react';
import { stampLabels, stampNames, strewable } from '@/core/marks/stamp/names';
import { pointerShapes } from '@/core/marks/names';
import { pointerShapeLabels } from '@/core/marks/piece/shapes';
import type { Style } from '@/core/marks/style';
import { NumberInput } from '../../ui/NumberInput';
import { Range } from '../../ui/Range';
import { fadesNow, setStyle } from '../actions/restyle';
import { extents, type SizeField } from '../stage/sizeInHand';
import { Colours, SecondColour } from './Colours';
import { Choice, Press } from './controls';

type Show = (style: Style) => ReactNode;
type Of<T> = { [K in keyof Style]: Style[K] extends T ? K : never }[keyof Style];

const range =
  (field: SizeField | 'corner' | 'softness', more: { unit?: string; width?: string } = {}): Show =>
  (style) => (
    <Range
      {...extents[field]}
      value={style[field]}
      {...more}
      onChange={(value) => setStyle({ [field]: value })}
    />
  );

const percent =
  (field: Of<number>, label: string, min: number, max: number): Show =>
  (style) => (
    <Range
      label={label}
      value={Math.round(style[field] * 100)}
      min={min}
      max={max}
      unit=" %"
      width="w-14"
      onChange={(value) => setStyle({ [field]: value / 100 })}
    />
  );

const number =
  (field: Of<number>, label: string, min: number, max: number, whole = false): Show =>
  (style) => (
    <NumberInput
      label={label}
      value={style[field]}
      min={min}
      max={max}
      onCommit={(value) => setStyle({ [field]: whole ? Math.round(value) : value })}
    />
  );

const press =
  (field: Of<boolean>, label: string): Show =>
  (style) => <Press label={label} on={style[field]} onChange={(on) => setStyle({ [field]: on })} />;

const choice =
  <K extends Exclude<Of<string>, 'colour'>>(
    field: K,
    label: string,
    options: readonly (readonly [Style[K], string])[],
  ): Show =>
  (style) => (
    <Choice
      label={label}
      value={style[field]}
      options={options}
      onChange={(value) => setStyle({ [field]: value })}
    />
  );

const colours =
  (field: 'fill' | 'plate' | 'rim', label: string, none: string): Show =>
  (style) => (
    <SecondColour
      label={label}
      value={style[field]}
      none={none}
      onNone={() => setStyle({ [field]: null })}
      onChange={(value, opacity) => {
        if (opacity !== undefined && field !== 'fill') return `${label} has no opacity of its own.`;
        setStyle({ [field]: value, ...(opacity !== undefined && { fillOpacity: opacity }) });
      }}
    />
  );

/** How each setting is shown; a kind of mark lists those it uses. */
export const settings: Record<keyof Style, Show> = {
  colour: (style) => (
    <Colours
      label="Colour"
      value={style.colour}
      onChange={(colour, opacity) => {
        if (opacity !== undefined && !fadesNow()) return 'This covers what is below it whole.';
        setStyle({ colour, ...(opacity !== undefined && { opacity }) });
      }}
    />
  ),
  fill: colours('fill', 'Fill', 'No fill'),
  plate: colours('plate', 'Plate', 'No plate'),
  rim: colours('rim', 'Border', 'No border'),
  thickness: range('thickness'),
  outline: range('outline'),
  corner: range('corner', { width: 'w-14' }),
  fillOpacity: (style) => style.fill && percent('fillOpacity', 'Fill strength', 5, 100)(style),
  heads: choice('heads', 'Heads', [
    ['none', 'No head'],
    ['start', 'Head at start'],
    ['end', 'Head at end'],
    ['both', 'Both heads'],
  ]),
  headShape: (style) =>
    style.heads !== 'none' &&
    choice('headShape', 'Shape', [
      ['solid', 'Solid'],
      ['open', 'Open'],
      ['dot', 'Dot'],
    ])(style),
  taper: press('taper', 'Tapered'),
  dashed: press('dashed', 'Dashed'),
  tip: choice('tip', 'Tip', [
    ['felt', 'Felt'],
    ['nib', 'Nib'],
    ['chalk', 'Chalk'],
    ['speckle', 'Speckle'],
    ['strew', 'Strew'],
  ]),
  strewn: (style) =>
    style.tip === 'strew' &&
    choice(
      'strewn',
      'Strewn',
      strewable.map((name) => [name, stampLabels[name]] as const),
    )(style),
  opacity: percent('opacity', 'Opacity', 5, 100),
  straight: press('straight', 'Along a line'),
  textSize: number('textSize', extents.textSize.label, extents.textSize.min, extents.textSize.max),
  bold: press('bold', 'Bold'),
  face: choice('face', 'Face', [
    ['plain', 'Plain'],
    ['display', 'Display'],
    ['hand', 'Hand'],
    ['fixed', 'Fixed'],
  ]),
  align: choice('align', 'Align', [
    ['start', 'Start'],
    ['centre', 'Middle'],
    ['end', 'End'],
  ]),
  lineSpacing: number('lineSpacing', 'Lines', 0.8, 3),
  padding: (style) => style.plate && number('padding', 'Padding', 0, 3)(style),
  counting: choice('counting', 'Count', [
    ['numbers', '1 2 3'],
    ['letters', 'A B C'],
    ['roman', 'I II III'],
  ]),
  first: number('first', 'First', 0, 9999, true),
  size: range('size'),
  dimming: percent('dimming', 'Strength', 10, 95),
  softness: range('softness', { width: 'w-14' }),
  hole: choice('hole', 'Shape', [
    ['box', 'Box'],
    ['oval', 'Oval'],
  ]),
  zoom: range('zoom', { unit: ' ×' }),
  sharp: press('sharp', 'Sharp pixels'),
  stamp: choice(
    'stamp',
    'Stamp',
    stampNames.map((name) => [name, stampLabels[name]] as const),
  ),
  standsOut: press('standsOut', 'Stands out'),
  area: choice('area', 'Area', [
    ['box', 'Box'],
    ['oval', 'Oval'],
    ['free', 'By hand'],
  ]),
  strength: range('strength'),
  paintOut: choice('paintOut', 'With', [
    ['across', 'What is around it'],
    ['colour', 'One colour'],
  ]),
  pointer: choice(
    'pointer',
    'Pointer',
    pointerShapes.map((shape) => [shape, pointerShapeLabels[shape]] as const),
  ),
};
