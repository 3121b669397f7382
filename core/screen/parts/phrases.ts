import { bottom, centre, right, union, type Rect } from '../../geometry/rect';
import { inkSpots } from '../ink';
import type { ReadablePixels } from '../../raster/pixels';

/** Words that stand together on one line. */
export interface Phrase {
  /** Where their ink is. */
  ink: Rect;
  /** Where the line stands: the ink's columns, from the ascent to the descent of their letters. */
  line: Rect;
  /** The row that most of the letters stand on. */
  foot: number;
}

/** Something small that is drawn and is no words: an icon, the mark of a check box. */
export interface Found {
  phrases: Phrase[];
  icons: Rect[];
}

/** Words and icons of what cannot be used now are faint. */
const FAINT = 24;
/** A screen full of small print has so many letters, and one on so many pixels; grain has more. */
const MOST = 40_000;
const SPARSE = 60;
/** Letters are so high, px. */
const LETTER = { least: 4, most: 34 };
const ICON = { least: 8, most: 64 };
const MARK = { least: 10, most: 26 };
/** A gap of so many heights of a letter still lies between two words of one phrase. */
const GAP = 0.55;
/** What a line has above a high letter's head and below its foot, in heights of that letter. */
const ABOVE = 0.32;
const BELOW = 0.4;

/**
 * Phrases and icons of a picture, from its pixels alone.
 * @param isLate says when nobody waits any longer: none
 */
export function phrasesOf(picture: ReadablePixels, isLate = (): boolean => false): Found {
  const most = Math.min(MOST, (picture.width * picture.height) / SPARSE);
  const spots = inkSpots(picture, FAINT, most, isLate).filter(
    (s) => s.width <= 90 && s.height <= ICON.most,
  );
  const groups = grouped(spots);
  const phrases: Phrase[] = [];
  const icons: Rect[] = [];
  for (const group of groups) {
    const { mark, rest } = withoutMark(group);
    if (mark) icons.push(mark);
    const ink = union(rest);
    if (isWords(rest, ink)) phrases.push(phraseOf(rest, ink));
    else if (isIcon(ink)) icons.push(ink);
  }
  return { phrases, icons };
}

/** The mark of a check box, or an icon, stands a little before the words and is as wide as high. */
function withoutMark(group: readonly Rect[]): { mark: Rect | null; rest: readonly Rect[] } {
  const order = [...group].sort((a, b) => a.x - b.x);
  const [first] = order;
  if (!first || first.width < MARK.least || first.width > MARK.most)
    return { mark: null, rest: group };
  const inside = order.filter((s) => right(s) <= right(first) + 1);
  const mark = union(inside);
  const rest = order.slice(inside.length);
  const apart = (rest[0]?.x ?? 0) - right(mark);
  const square = Math.abs(mark.width - mark.height) <= 4;
  // Capitals are no higher than the words they begin.
  const isMark = rest.length > 1 && square && apart >= 4 && mark.height >= union(rest).height;
  return isMark ? { mark, rest } : { mark: null, rest: group };
}

const isIcon = ({ width, height }: Rect): boolean =>
  width >= ICON.least && height >= ICON.least && width <= ICON.most && height <= ICON.most;

/** Letters are as high as each other within reason, and wider together than high. */
function isWords(group: readonly Rect[], ink: Rect): boolean {
  if (group.length < 2 || ink.height < 6 || ink.height > LETTER.most) return false;
  return ink.width >= ink.height * 1.2;
}

/** The foot of most letters, and the height of the highest above it, make the line. */
function phraseOf(group: readonly Rect[], ink: Rect): Phrase {
  const feet = new Map<number, number>();
  for (const spot of group) feet.set(bottom(spot), (feet.get(bottom(spot)) ?? 0) + 1);
  const foot = [...feet].reduce((a, b) => (b[1] > a[1] ? b : a))[0];
  const high = Math.max(6, foot - ink.y);
  const y = Math.round(foot - high * (1 + ABOVE));
  const height = Math.round(foot + high * BELOW) - y;
  return { ink, foot, line: { x: ink.x, y, width: ink.width, height } };
}

/** Spots beside each other at one height, as far apart as letters and words are. */
function grouped(spots: readonly Rect[]): Rect[][] {
  const order = [...spots].sort((a, b) => a.x - b.x);
  const groups: { box: Rect; spots: Rect[] }[] = [];
  /** Groups that still may go on, by rows of 16 px. */
  const open = new Map<number, Set<number>>();
  const rows = (r: Rect) => {
    const from = r.y >> 4;
    return Array.from({ length: ((bottom(r) - 1) >> 4) - from + 1 }, (_, i) => from + i);
  };
  for (const spot of order) {
    const near = new Set(rows(spot).flatMap((row) => [...(open.get(row) ?? [])]));
    const joined = [...near].filter((i) => {
      const box = groups[i]?.box;
      return box !== undefined && goesOn(box, spot);
    });
    const into = joined[0] ?? groups.push({ box: spot, spots: [] }) - 1;
    const group = groups[into];
    if (!group) continue;
    group.spots.push(spot);
    group.box = union([group.box, spot]);
    // A spot may bring two groups together: a line under words, or an i and its dot.
    for (const other of joined.slice(1)) {
      const taken = groups[other];
      if (!taken || other === into) continue;
      group.spots.push(...taken.spots);
      group.box = union([group.box, taken.box]);
      groups[other] = { box: { x: 0, y: 0, width: 0, height: 0 }, spots: [] };
    }
    for (const row of rows(group.box)) {
      const there = open.get(row) ?? new Set();
      for (const i of joined.slice(1)) there.delete(i);
      for (const i of there) if (right(groups[i]?.box ?? spot) < spot.x - 60) there.delete(i);
      open.set(row, there.add(into));
    }
  }
  return groups.flatMap((g) => (g.spots.length ? [g.spots] : []));
}

/** True where a spot belongs to the words before it. */
function goesOn(box: Rect, spot: Rect): boolean {
  const high = Math.max(Math.min(box.height, 24), Math.min(spot.height, 24), 8);
  if (spot.x - right(box) > Math.max(3, high * GAP)) return false;
  const shared = Math.min(bottom(box), bottom(spot)) - Math.max(box.y, spot.y);
  if (shared >= Math.min(box.height, spot.height) * 0.5) {
    return (
      Math.max(box.height, spot.height) <= 3.5 * Math.max(9, Math.min(box.height, spot.height))
    );
  }
  // A dot or an accent over a letter, a comma below.
  const over = Math.abs(centre(spot).x - centre(box).x) <= box.width / 2 + 2;
  return over && shared >= -3 && Math.min(spot.height, box.height) <= 4;
}
