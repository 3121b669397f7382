import type * as HarfBuzz from 'harfbuzzjs';
import { visualRuns, type VisualRun } from './bidi';
import type { Face } from './names';
import type { FontStyle, OutlineCommand, PlacedGlyph, ShapedRun, Shaper } from './shaper';

const latin = (name: string, weight: number): string[] => [
  `${name}-latin-${weight}-normal.ttf`,
  `${name}-latin-ext-${weight}-normal.ttf`,
];

/** Where a character is looked for that the face itself lacks. */
const others = (weight: 400 | 700): string[] => [
  ...latin('atkinson-hyperlegible-next', weight),
  `ibm-plex-mono-latin-${weight === 700 ? 600 : 400}-normal.ttf`,
  ...['vietnamese', 'cyrillic', 'greek', 'hebrew-hebrew', 'thai-thai'].map(
    (script) => `noto-sans-${script}-${weight}-normal.ttf`,
  ),
  ...['arabic-arabic', 'devanagari', 'symbols-symbols'].map(
    (script) => `noto-sans-${script}-400-normal.ttf`,
  ),
];

const faceFiles = (first: (weight: 400 | 700) => string[]): Record<400 | 700, string[]> => ({
  400: [...new Set([...first(400), ...others(400)])],
  700: [...new Set([...first(700), ...others(700)])],
});

/** The font files, in the order in which a character is looked for. Paths below public/fonts. */
export const fontFiles: Record<Face, Record<400 | 700, readonly string[]>> = {
  plain: faceFiles((weight) => latin('atkinson-hyperlegible-next', weight)),
  display: faceFiles((weight) => latin('bricolage-grotesque', weight)),
  hand: faceFiles((weight) => latin('kalam', weight)),
  fixed: faceFiles((weight) => [`ibm-plex-mono-latin-${weight === 700 ? 600 : 400}-normal.ttf`]),
};

export const allFontFiles: readonly string[] = [
  ...new Set(Object.values(fontFiles).flatMap((weights) => Object.values(weights).flat())),
];

/** Tells these font files from those of other versions, so that browsers may hold on to them. */
export const fontsVersion = '03fa73d7';

interface LoadedFont {
  file: string;
  font: HarfBuzz.Font;
  unitsPerEm: number;
  outlines: Map<number, readonly OutlineCommand[]>;
}

/** Runs kept ready; a whole screen of text needs a few hundred. */
const KEPT_RUNS = 4000;

/**
 * A shaper over HarfBuzz.
 * @param hb the loaded module
 * @param files the bytes of every file in `allFontFiles`, by name
 * @throws when a font file is missing
 */
export function createShaper(hb: typeof HarfBuzz, files: ReadonlyMap<string, Uint8Array>): Shaper {
  const loaded = new Map<string, LoadedFont>();
  const load = (name: string): LoadedFont => {
    const before = loaded.get(name);
    if (before) return before;
    const bytes = files.get(name);
    if (!bytes) throw new Error(`Font file ${name} is missing.`);
    const face = new hb.Face(new hb.Blob(Uint8Array.from(bytes).buffer));
    const font = new hb.Font(face);
    const entry = { file: name, font, unitsPerEm: face.upem, outlines: new Map() };
    loaded.set(name, entry);
    return entry;
  };
  const fontsFor = (style: Pick<FontStyle, 'face' | 'weight'>) =>
    fontFiles[style.face][style.weight].map(load);
  const runs = new Map<string, ShapedRun>();
  const pen = createPen(hb);
  return {
    shape(text, style) {
      const key = `${style.face} ${style.weight} ${style.size} ${text}`;
      const before = runs.get(key);
      if (before) return before;
      if (runs.size >= KEPT_RUNS) runs.clear();
      const run = shapeRun(hb, fontsFor(style), pen, text, style.size);
      runs.set(key, run);
      return run;
    },
    pieces: (text, style) =>
      splitByFont(fontsFor(style), text).map((piece) => ({ ...piece, file: piece.font.file })),
    edges: (text, style) => edgesOf(hb, fontsFor(style), text, style.size),
    metrics(style) {
      const [first] = fontsFor(style);
      if (!first) throw new Error(`No font for ${style.face}.`);
      const { ascender, descender } = first.font.hExtents();
      const scale = style.size / first.unitsPerEm;
      return { ascent: ascender * scale, descent: -descender * scale };
    },
  };
}

interface Piece {
  font: LoadedFont;
  text: string;
  /** Where it begins in the whole text, in UTF-16 units. */
  from: number;
  rightToLeft: boolean;
}

/** A piece as HarfBuzz sets it: its glyphs in the order they are seen. */
function setPiece(hb: typeof HarfBuzz, { font, text, rightToLeft }: Piece) {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(rightToLeft ? hb.Direction.RTL : hb.Direction.LTR);
  hb.shape(font.font, buffer);
  return { infos: buffer.getGlyphInfos(), positions: buffer.getGlyphPositions() };
}

const piecesOf = (fonts: readonly LoadedFont[], text: string): Piece[] =>
  visualRuns(text).flatMap((run) => inOrder(splitByFont(fonts, run.text), run));

function shapeRun(
  hb: typeof HarfBuzz,
  fonts: readonly LoadedFont[],
  pen: Pen,
  text: string,
  size: number,
): ShapedRun {
  const glyphs: PlacedGlyph[] = [];
  let advance = 0;
  for (const piece of piecesOf(fonts, text)) {
    const scale = size / piece.font.unitsPerEm;
    const { infos, positions } = setPiece(hb, piece);
    infos.forEach((info, i) => {
      const position = positions[i];
      if (!position) return;
      glyphs.push({
        x: advance + position.xOffset * scale,
        y: -position.yOffset * scale,
        scale,
        outline: pen(piece.font, info.codepoint),
      });
      advance += position.xAdvance * scale;
    });
  }
  return { glyphs, advance };
}

/** Each cluster's advance is counted where it begins, and then summed up. */
function edgesOf(
  hb: typeof HarfBuzz,
  fonts: readonly LoadedFont[],
  text: string,
  size: number,
): Float64Array {
  const edges = new Float64Array(text.length + 1);
  for (const piece of piecesOf(fonts, text)) {
    const scale = size / piece.font.unitsPerEm;
    const { infos, positions } = setPiece(hb, piece);
    infos.forEach((info, i) => {
      const at = piece.from + info.cluster + 1;
      edges[at] = (edges[at] ?? 0) + (positions[i]?.xAdvance ?? 0) * scale;
    });
  }
  for (let i = 1; i < edges.length; i += 1) edges[i] = (edges[i] ?? 0) + (edges[i - 1] ?? 0);
  return edges;
}

/** Pieces of a run from left to right, as they are seen. */
function inOrder(
  pieces: { font: LoadedFont; text: string }[],
  { from, rightToLeft }: VisualRun,
): Piece[] {
  let at = from;
  const all = pieces.map((piece) => {
    const begins = at;
    at += piece.text.length;
    return { ...piece, from: begins, rightToLeft };
  });
  return rightToLeft ? all.reverse() : all;
}

/** Cuts text into pieces that one font each can draw; the first font draws what none has. */
function splitByFont(
  fonts: readonly LoadedFont[],
  text: string,
): { font: LoadedFont; text: string }[] {
  const pieces: { font: LoadedFont; text: string }[] = [];
  for (const character of text) {
    const last = pieces.at(-1);
    const code = character.codePointAt(0) ?? 0;
    const joins = /\p{M}|\u200d|\ufe0f/u.test(character);
    const font = fonts.find((f) => f.font.nominalGlyph(code) !== undefined) ?? fonts[0];
    if (!font) continue;
    if (last && (joins || last.font === font)) last.text += character;
    else pieces.push({ font, text: character });
  }
  return pieces;
}

/** Draws a glyph's outline, once. */
type Pen = (font: LoadedFont, glyph: number) => readonly OutlineCommand[];

/** One set of callbacks for all glyphs: each of them costs HarfBuzz a small module of its own. */
function createPen(hb: typeof HarfBuzz): Pen {
  let commands: OutlineCommand[] = [];
  let draw: HarfBuzz.DrawFuncs | null = null;
  const begin = (): HarfBuzz.DrawFuncs => {
    const fresh = new hb.DrawFuncs();
    fresh.setMoveToFunc((x, y) => commands.push(['M', x, y]));
    fresh.setLineToFunc((x, y) => commands.push(['L', x, y]));
    fresh.setQuadraticToFunc((cx, cy, x, y) => commands.push(['Q', cx, cy, x, y]));
    fresh.setCubicToFunc((ax, ay, bx, by, x, y) => commands.push(['C', ax, ay, bx, by, x, y]));
    fresh.setClosePathFunc(() => commands.push(['Z']));
    return fresh;
  };
  return ({ font, outlines }, glyph) => {
    const before = outlines.get(glyph);
    if (before) return before;
    commands = [];
    draw ??= begin();
    font.drawGlyph(glyph, draw);
    outlines.set(glyph, commands);
    return commands;
  };
}
