import { bottom, centre, encloses, overlap, right, union, type Rect } from '../../geometry/rect';
import type { Found, Phrase } from './phrases';

/** Controls are hardly higher, px. */
const CONTROL = 48;
/** Pieces that touch, or share a border, px. */
const TOUCH = 2;
/** A mark and its words stand so near, px. */
const BESIDE = 14;
const ROOM = 2;
/** So much of the words in a list stands on its rows. */
const MOSTLY = 0.6;
/** Lines that stand at one distance from each other, px. */
const EVEN = 1;
/** Entries of a bar stand at least so far apart, px. */
const APART = 10;
/** Rows that reach from side to side have their words near the side, px. */
const INSET = 14;
/** The smallest box that holds something may be so much larger than the lines in it. */
const BAR = { least: 16, most: 44 };

/**
 * Wholes that edges alone show only in pieces or not at all: controls of several boxes side by side,
 * words with their mark, entries of a bar, buttons without edges, rows of a list and their cells.
 * @param boxes what was found by its edges
 */
export function wholesOf(boxes: readonly Rect[], { phrases, icons }: Found): Rect[] {
  const holders = holdersOf(boxes, phrases);
  const onBars = [...holders].flatMap(([holder, inside]) =>
    holder.height <= BAR.most ? entries(holder, inside) : [],
  );
  const inLists = [...holders].flatMap(([holder, inside]) =>
    holder.height > BAR.most ? rows(holder, inside, boxes) : [],
  );
  return [
    ...sideBySide(boxes),
    ...marked(phrases, [...icons, ...boxes]),
    ...captioned(phrases, icons),
    ...onBars,
    ...flatButtons(boxes, icons),
    ...inLists,
  ];
}

/** The smallest box around each phrase. */
function holdersOf(boxes: readonly Rect[], phrases: readonly Phrase[]): Map<Rect, Phrase[]> {
  const order = [...boxes].sort((a, b) => a.width * a.height - b.width * b.height);
  const held = new Map<Rect, Phrase[]>();
  for (const phrase of phrases) {
    const holder = order.find((box) => encloses(box, phrase.ink));
    if (holder) held.set(holder, [...(held.get(holder) ?? []), phrase]);
  }
  return held;
}

/** Boxes of one height that share a side: a field with its button, tabs, a divided button. */
function sideBySide(boxes: readonly Rect[]): Rect[] {
  const low = boxes.filter((b) => b.height <= CONTROL && b.height >= 12);
  const order = [...low].sort((a, b) => a.y - b.y || a.x - b.x);
  const chains: Rect[][] = [];
  for (const box of order) {
    const chain = chains.find((c) => {
      const last = c.at(-1);
      return (
        last !== undefined &&
        Math.abs(last.y - box.y) <= TOUCH &&
        Math.abs(bottom(last) - bottom(box)) <= TOUCH &&
        Math.abs(right(last) - box.x) <= 1
      );
    });
    if (chain) chain.push(box);
    else chains.push([box]);
  }
  return chains.filter((c) => c.length > 1 && c.length <= 8).map((c) => union(c));
}

/** Words with a small mark right before them: check boxes, radio buttons, entries with icons. */
function marked(phrases: readonly Phrase[], marks: readonly Rect[]): Rect[] {
  const small = marks.filter(
    (m) => m.width >= 10 && m.width <= 22 && Math.abs(m.width - m.height) <= 3,
  );
  return phrases.flatMap(({ line }) => {
    const mark = small.find(
      (m) =>
        line.x - right(m) >= 1 &&
        line.x - right(m) <= BESIDE &&
        Math.abs(centre(m).y - centre(line).y) <= 4,
    );
    if (!mark) return [];
    // Such a control has a little room of its own on both sides.
    const { x, width, ...rest } = union([mark, line]);
    return [{ ...rest, x: x - ROOM, width: width + 2 * ROOM }];
  });
}

/** An icon with its words below, in the middle. */
function captioned(phrases: readonly Phrase[], icons: readonly Rect[]): Rect[] {
  return icons.flatMap((icon) => {
    const caption = phrases.find(
      ({ line }) =>
        line.y - bottom(icon) >= -2 &&
        line.y - bottom(icon) <= BESIDE &&
        Math.abs(centre(line).x - centre(icon).x) <= 3,
    );
    return caption ? [union([icon, caption.line])] : [];
  });
}

/** Words on a bar, each with the bar's height and half of the room to the next. */
function entries(bar: Rect, phrases: readonly Phrase[]): Rect[] {
  if (phrases.length < 3 || bar.height < BAR.least || bar.width < bar.height * 8) return [];
  const order = phrases.map((p) => p.ink).sort((a, b) => a.x - b.x);
  const level = order.every((a) => order.every((b) => a.y < bottom(b) && b.y < bottom(a)));
  if (!level) return [];
  const gaps = order.slice(1).map((next, i) => next.x - right(order[i] ?? next));
  if (Math.min(...gaps) < APART) return [];
  const room = Math.min(10, Math.min(...gaps) / 2);
  const { y, height } = bar;
  return order.flatMap(({ x, width }) => [
    { x: Math.round(x - room), y, width: Math.round(width + 2 * room), height },
    { x, y, width, height },
  ]);
}

/** Icons on a bar at one distance from each other are buttons without edges, as wide as that distance. */
function flatButtons(boxes: readonly Rect[], icons: readonly Rect[]): Rect[] {
  const bars = boxes.filter(
    (b) => b.height >= BAR.least && b.height <= 64 && b.width >= 2 * b.height,
  );
  return bars.flatMap((bar) => {
    const on = icons.filter((i) => encloses(bar, i) && i.width <= 40);
    const order = on.sort((a, b) => a.x - b.x);
    return order.flatMap((icon, i) => {
      const at = centre(icon).x;
      const steps = [order[i - 1], order[i + 1]].flatMap((n) =>
        n ? [Math.abs(centre(n).x - at)] : [],
      );
      const step = Math.round(Math.min(...steps));
      if (steps.length === 0 || step > 64 || step < icon.width + 4) return [];
      const height = Math.min(bar.height, step);
      const y = Math.round(centre(bar).y - height / 2);
      return [{ x: Math.round(at - step / 2), y, width: step, height }];
    });
  });
}

/** Levels of words that repeat at one distance are rows, as wide as what holds them. */
function rows(holder: Rect, phrases: readonly Phrase[], boxes: readonly Rect[]): Rect[] {
  if (Math.min(...phrases.map((p) => p.ink.x)) - holder.x > INSET) return [];
  const heads = headsOf(holder, boxes);
  const levels: Phrase[] = [];
  for (const phrase of [...phrases].sort((p, q) => p.foot - q.foot)) {
    if (phrase.foot - (levels.at(-1)?.foot ?? -9) > TOUCH) levels.push(phrase);
  }
  const onLevels = (run: readonly Phrase[]) =>
    phrases.filter((p) => run.some(({ foot }) => Math.abs(foot - p.foot) <= TOUCH)).length;
  // A few even lines among much else are no list.
  const lists = evenRuns(levels).filter((run) => onLevels(run) >= phrases.length * MOSTLY);
  return lists.flatMap((run) => {
    const pitch = ((run.at(-1)?.foot ?? 0) - (run[0]?.foot ?? 0)) / (run.length - 1);
    const height = Math.round(pitch);
    const middles = run.map((p) => p.foot - centre(p.line).y).sort((a, b) => a - b);
    const above = (middles[middles.length >> 1] ?? 0) + pitch / 2;
    return run.flatMap(({ foot }) => {
      const row = { x: holder.x, y: Math.round(foot - above), width: holder.width, height };
      if (!overlap(holder, row)) return [];
      return [row, ...heads.map(({ x, width }) => ({ ...row, x, width }))];
    });
  });
}

/** The headings of columns: boxes side by side right above what they are of. */
function headsOf(holder: Rect, boxes: readonly Rect[]): Rect[] {
  const heads = boxes.filter(
    (b) =>
      b.height <= CONTROL &&
      Math.abs(bottom(b) - holder.y) <= 3 &&
      b.x >= holder.x - 3 &&
      right(b) <= right(holder) + 3 &&
      b.width < holder.width * 0.9,
  );
  return heads.length > 1 ? heads : [];
}

/** Lines of at least three that follow each other at one distance, not too far apart. */
function evenRuns(order: readonly Phrase[]): Phrase[][] {
  const runs: Phrase[][] = [];
  let run: Phrase[] = [];
  const end = () => {
    if (run.length >= 3) runs.push(run);
  };
  for (const phrase of order) {
    const [before, last] = [run.at(-2), run.at(-1)];
    const step = last ? phrase.foot - last.foot : 0;
    const near = step >= phrase.line.height * 0.8 && step <= 3 * phrase.line.height;
    const even = !last || !before || Math.abs(step - (last.foot - before.foot)) <= EVEN;
    if (last && !(near && even)) {
      end();
      run = near ? [last] : [];
    }
    run.push(phrase);
  }
  end();
  return runs;
}
