import PDFDocument from 'pdfkit';
import type { Shaper } from '@/core/drawing/shaper';
import { hasContents, stepHeading, type Part, type StepPart } from '@/core/guide/page';
import { firstFont, heightOfWords, runWords, type WordRun } from '../formats/pdfWords';
import { serverShaper } from '../paint/shaper';
import { pictureFor, type GuideWriter, type Material } from './contract';
import { linesOf, type Line, type Run } from './runs';

/** ISO 216, A4, in points. */
const PAGE = { width: 595.28, height: 841.89 };
const MARGIN = 56;
const ROOM = PAGE.width - 2 * MARGIN;
const BOTTOM = PAGE.height - MARGIN;
const BODY = 11;
const TITLE = 26;
const SIZES = { 2: 17, 3: 14 } as const;
const GAP = 10;
const INDENT = 16;
const ENTRY = 18;
/** Pixels of a picture that lie on an inch, at least. */
const DENSITY = 110;

type Doc = PDFKit.PDFDocument;
type Element = PDFKit.PDFStructureElement;
interface Sheet {
  doc: Doc;
  shaper: Shaper;
  whole: Element;
}

/** Pages of A4 with structure, alternative texts, contents, bookmarks and page numbers (PDF 1.7). */
export const pdf: GuideWriter = {
  name: 'pdf',
  mediaType: 'application/pdf',
  extension: 'pdf',
  async write(material) {
    const { page, name } = material;
    const shaper = await serverShaper();
    const doc = begin(page.title, new Date(material.changedAt), firstFont(shaper));
    const parts: Buffer[] = [];
    const done = new Promise<void>((resolve, reject) => {
      doc.on('data', (part: Buffer) => parts.push(part));
      doc.on('end', () => resolve());
      doc.on('error', reject);
    });
    const whole = doc.struct('Document');
    doc.addStructure(whole);
    const sheet = { doc, shaper, whole };
    heading(sheet, 'H1', page.title, TITLE);
    const contents = hasContents(page) ? roomForContents(sheet, page.parts) : null;
    const pages = new Map<string, number>();
    page.parts.forEach((part, i) => {
      if (part.kind === 'heading') {
        // It stays with what comes first below it.
        const next = page.parts[i + 1];
        const below = next?.kind === 'step' ? stepSize(sheet, next, material).needed : 40;
        if (doc.y + 3 * SIZES[2] + below > BOTTOM) doc.addPage();
        else doc.moveDown(1);
        marked(doc, part.id, part.text);
        heading(sheet, 'H2', part.text, SIZES[2]);
      } else step(sheet, part, material);
      pages.set(part.id, doc.bufferedPageRange().count);
    });
    if (contents) fillContents(sheet, contents, page.parts, pages);
    whole.end();
    numberPages(sheet);
    doc.end();
    await done;
    return [{ path: [`${name}.pdf`], bytes: Buffer.concat(parts) }];
  },
};

const begin = (title: string, changed: Date, font: string): Doc =>
  new PDFDocument({
    size: [PAGE.width, PAGE.height],
    margin: MARGIN,
    pdfVersion: '1.7',
    tagged: true,
    lang: 'en',
    displayTitle: true,
    bufferPages: true,
    font,
    info: { Title: title, Creator: 'Rezzik', Producer: 'Rezzik', CreationDate: changed },
  });

const BOLD = { face: 'plain', weight: 700 } as const;

function heading(
  { doc, shaper, whole }: Sheet,
  tag: 'H1' | 'H2' | 'H3',
  text: string,
  size: number,
) {
  whole.add(
    doc.struct(tag, {}, () => {
      doc.fillColor('#1C2B2A').fontSize(size);
      runWords(doc, shaper, [{ text, style: BOLD }], { width: ROOM }, { x: MARGIN, y: doc.y });
    }),
  );
  doc.moveDown(0.4);
}

/** Where a bookmark and the list of contents lead. */
function marked(doc: Doc, id: string, text: string): void {
  doc.addNamedDestination(id, 'XYZ', MARGIN, doc.y, null);
  doc.outline.addItem(text);
}

/**
 * How large a step's picture is shown, and how much room it needs with its heading. The two stay
 * together; where they are too high for a page, the picture gives way.
 */
function stepSize({ doc, shaper }: Sheet, part: StepPart, material: Material) {
  const { width, height } = pictureFor(material, part.id);
  const own = { width: (width * 72) / DENSITY, height: (height * 72) / DENSITY };
  const size = SIZES[part.depth];
  doc.fontSize(size);
  const above = heightOfWords(doc, shaper, stepHeading(part), ROOM, BOLD) + size + GAP;
  // As much as a heading above it may need.
  const most = BOTTOM - MARGIN - above - 3 * SIZES[2];
  const by = Math.min(1, ROOM / own.width, most / own.height);
  const shown = { width: own.width * by, height: own.height * by };
  return { size, shown, needed: above + shown.height };
}

function step(sheet: Sheet, part: StepPart, material: Material): void {
  const { doc, whole } = sheet;
  const { png } = pictureFor(material, part.id);
  const words = stepHeading(part);
  const { size, shown, needed } = stepSize(sheet, part, material);
  if (doc.y + needed > BOTTOM) doc.addPage();
  else doc.moveDown(0.8);
  marked(doc, part.id, words);
  heading(sheet, `H${part.depth}`, words, size);
  const { y } = doc;
  const bbox: [number, number, number, number] = [
    MARGIN,
    PAGE.height - y - shown.height,
    MARGIN + shown.width,
    PAGE.height - y,
  ];
  const told = { alt: part.alternative, bbox };
  whole.add(
    doc.struct('Figure', told, () => {
      doc.image(Buffer.from(png), MARGIN, y, shown);
    }),
  );
  doc.x = MARGIN;
  doc.y = y + shown.height + GAP;
  for (const line of linesOf(part.caption)) writeLine(sheet, line);
  for (const { written, caption } of part.numbers) {
    const runs = [
      { text: `${written} `, style: BOLD },
      { text: caption, style: undefined },
    ];
    paragraph(sheet, runs, 0);
  }
}

const runOf = ({ text, strong, emphasis, code, link }: Run): WordRun => ({
  text,
  style: { face: code ? 'fixed' : 'plain', weight: strong ? 700 : 400 },
  more: {
    oblique: emphasis,
    link: link ?? null,
    underline: link !== null,
  },
});

function writeLine(sheet: Sheet, { depth, before, quoted, runs }: Line): void {
  const first = before ? [{ text: `${before} ` }] : [];
  if (quoted) sheet.doc.fillColor('#4C5A57');
  paragraph(sheet, [...first, ...runs.map(runOf)], depth * INDENT);
  sheet.doc.fillColor('#1C2B2A');
}

function paragraph({ doc, shaper, whole }: Sheet, runs: readonly WordRun[], indent: number): void {
  if (runs.every(({ text }) => text === '')) return;
  whole.add(
    doc.struct('P', {}, () => {
      doc.fontSize(BODY);
      const options = { width: ROOM - indent, lineGap: 2 };
      runWords(doc, shaper, runs, options, { x: MARGIN + indent, y: doc.y });
    }),
  );
  doc.x = MARGIN;
  doc.moveDown(0.35);
}

interface Contents {
  element: Element;
  /** Where each entry lies: its page, and how far down. */
  places: { page: number; y: number }[];
}

/** Keeps as much room as the list needs; it is written when the pages are known. */
function roomForContents({ doc, whole }: Sheet, parts: readonly Part[]): Contents {
  const element = doc.struct('TOC');
  whole.add(element);
  const places: Contents['places'] = [];
  let y = doc.y + GAP;
  for (let i = 0; i < parts.length; i += 1) {
    if (y + ENTRY > BOTTOM) {
      doc.addPage();
      y = MARGIN;
    }
    places.push({ page: doc.bufferedPageRange().count - 1, y });
    y += ENTRY;
  }
  doc.addPage();
  return { element, places };
}

function fillContents(
  { doc, shaper }: Sheet,
  { element, places }: Contents,
  parts: readonly Part[],
  pages: ReadonlyMap<string, number>,
): void {
  parts.forEach((part, i) => {
    const place = places[i];
    if (!place) return;
    const { page, y } = place;
    doc.switchToPage(page);
    const words = part.kind === 'heading' ? part.text : stepHeading(part);
    const indent = part.kind === 'heading' ? 0 : INDENT;
    const width = ROOM - indent - 40;
    element.add(
      doc.struct('TOCI', {}, () => {
        doc.fontSize(BODY).fillColor('#1C2B2A');
        const line = { width, height: ENTRY, ellipsis: true, lineBreak: true, goTo: part.id };
        const style = part.kind === 'heading' ? BOLD : undefined;
        runWords(doc, shaper, [{ text: cut(doc, words, width), style }], line, {
          x: MARGIN + indent,
          y,
        });
        const at = { x: MARGIN + ROOM - 36, y };
        const number = String(pages.get(part.id) ?? '');
        runWords(doc, shaper, [{ text: number }], { width: 36, align: 'right' }, at);
      }),
    );
  });
  element.end();
}

/** One line of it. */
function cut(doc: Doc, words: string, width: number): string {
  if (doc.widthOfString(words) <= width) return words;
  let most = words.length;
  while (most > 1 && doc.widthOfString(`${words.slice(0, most)}…`) > width) most -= 1;
  return `${words.slice(0, most).toWellFormed()}…`;
}

/** Page numbers belong to the pages and not to what is read. */
function numberPages({ doc, shaper }: Sheet): void {
  const { count } = doc.bufferedPageRange();
  for (let i = 0; i < count; i += 1) {
    doc.switchToPage(i);
    // Below the margin, where the library would begin a new page.
    doc.page.margins.bottom = 0;
    doc.markContent('Artifact', { type: 'Pagination' });
    doc.fontSize(9).fillColor('#4C5A57');
    const place = { x: MARGIN, y: PAGE.height - 36 };
    const text = `${i + 1} / ${count}`;
    runWords(doc, shaper, [{ text }], { width: ROOM, align: 'center', lineBreak: false }, place);
    doc.endMarkedContent();
  }
}
