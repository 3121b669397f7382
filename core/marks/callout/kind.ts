import { readableOn } from '../../colour/colour';
import { add } from '../../geometry/point';
import { growth, uprightRect } from '../../geometry/mapping';
import { centre, contains, inflate, union } from '../../geometry/rect';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind } from '../contract';
import { moveRect, pullRect, rectHandles, rectNumbers, withRectNumber } from '../shared/rectMark';
import { paintWordsIn, shortened, sizedWords, wordSettings } from '../shared/words';
import { balloonPath } from './balloon';
import { calloutSchema, type CalloutMark } from './schema';

const settings = ['colour', 'outline', 'plate', 'corner', ...wordSettings] as const;

const padding = (mark: CalloutMark): number => mark.outline / 2 + mark.textSize * 0.35;
const wordsRect = (mark: CalloutMark) => inflate(mark, -padding(mark));
const ink = (mark: CalloutMark): string => (mark.plate ? readableOn(mark.plate) : mark.colour);

/** Words on a plate with a tail to what they speak of. */
export const callout: MarkKind<CalloutMark> = {
  kind: 'callout',
  label: 'Callout',
  group: 'Say',
  rank: 20,
  icon: 'M22 17a2 2 0 0 1-2 2H6.828a2 2 0 0 0-1.414.586l-2.202 2.202A.71.71 0 0 1 2 21.286V5a2 2 0 0 1 2-2h16a2 2 0 0 1 2 2z',
  key: 'c',
  first: { outline: 3, corner: 10 },
  contrast: { least: LEAST.words, ground: (mark) => mark.plate },
  schema: calloutSchema,
  blend: 'normal',
  fades: true,
  made: () => 'drag',
  settings,
  create(id, path, style) {
    const tip = path[0] ?? { x: 0, y: 0 };
    const to = path.at(-1) ?? tip;
    const width = style.textSize * 9;
    const height = style.textSize * 2.6;
    const pulled = Math.hypot(to.x - tip.x, to.y - tip.y) > 8;
    // Pulled from what it speaks of to where it stands; by a click it stands above.
    const middle = pulled ? to : { x: tip.x, y: tip.y - height * 1.4 };
    return {
      id,
      kind: 'callout',
      x: middle.x - width / 2,
      y: middle.y - height / 2,
      width,
      height,
      tip: { x: tip.x, y: tip.y },
      text: '',
      ...pick(style, settings),
      corner: style.corner || 10,
      align: 'centre',
    };
  },
  tooSmall: (mark) => mark.text.trim() === '',
  bounds: (mark) =>
    inflate(union([mark, { ...mark.tip, width: 0, height: 0 }]), mark.outline * 2 + 1),
  hit: (mark, at, tolerance) => contains(inflate(mark, mark.outline / 2 + tolerance), at),
  handles: (mark) => [...rectHandles(mark), { id: 'tip', at: mark.tip, role: 'end' }],
  pull: (mark, handle, to, keep) =>
    handle === 'tip' ? { ...mark, tip: { x: to.x, y: to.y } } : pullRect(mark, handle, to, keep),
  move: (mark, by) => ({ ...moveRect(mark, by), tip: add(mark.tip, by) }),
  // Words stay upright; what the tail points at is followed.
  through: (mark, map) => ({
    ...mark,
    ...uprightRect(mark, map),
    tip: map.point(mark.tip),
    textSize: sizedWords(mark.textSize, growth(map, centre(mark))),
  }),
  numbers: (mark) => [
    ...rectNumbers(mark),
    { id: 'tip.x', label: 'Tip x', value: mark.tip.x },
    { id: 'tip.y', label: 'Tip y', value: mark.tip.y },
  ],
  withNumber(mark, field, value) {
    if (field === 'tip.x') return { ...mark, tip: { ...mark.tip, x: value } };
    if (field === 'tip.y') return { ...mark, tip: { ...mark.tip, y: value } };
    return withRectNumber(mark, field, value);
  },
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark, tools) {
    surface.beginPath();
    balloonPath(surface, mark, mark.corner, mark.tip);
    if (mark.plate) {
      surface.fillStyle = mark.plate;
      surface.fill();
    }
    if (mark.outline > 0) {
      surface.strokeStyle = mark.colour;
      surface.lineWidth = mark.outline;
      surface.lineJoin = 'round';
      surface.stroke();
    }
    paintWordsIn(surface, mark, wordsRect(mark), ink(mark), tools);
  },
  words: {
    atOnce: true,
    read: (mark) => mark.text,
    write: (mark, text) => ({ ...mark, text }),
    field(mark) {
      const r = wordsRect(mark);
      return {
        ...pick(mark, wordSettings),
        ...r,
        width: Math.max(8, r.width),
        padding: 0,
        colour: ink(mark),
        ground: mark.plate,
      };
    },
  },
  describe: (mark) => shortened(mark.text) || 'empty',
};
