import type { Size } from '@/core/geometry/size';
import PDFDocument from 'pdfkit';
import type { Facts } from '@/core/keep/facts';
import { xmpDescription } from '@/core/keep/xmp';
import { serverShaper } from '../paint/shaper';
import { field, type Format } from './contract';
import { saidBy } from './markWords';
import { firstFont, heightOfWords, writeWords } from './pdfWords';
import { onto } from './raw';

const POINTS_PER_MM = 72 / 25.4;

/** ISO 216; ANSI Y14.1 for Letter. In points, upright. */
const papers: Record<string, readonly [number, number]> = {
  a4: [210 * POINTS_PER_MM, 297 * POINTS_PER_MM],
  letter: [8.5 * 72, 11 * 72],
};
const WORDS = 10;

/** One page with the picture, its title and description below it. */
export const pdf: Format = {
  name: 'pdf',
  label: 'PDF',
  note: 'A page with the picture, for printing and sending.',
  mediaType: 'application/pdf',
  extension: 'pdf',
  transparent: false,
  quality: false,
  facts: true,
  thread: () => 'pixels',
  fields: [
    field.choice('paper', 'Page', [
      ['picture', 'as large as the picture'],
      ['a4', 'A4'],
      ['letter', 'Letter'],
    ]),
    field.choice('lie', 'Lies', [
      ['fitting', 'as it fits'],
      ['upright', 'upright'],
      ['across', 'across'],
    ]),
    field.number('margin', 'Margin, mm', [0, 60, 12]),
    field.on('below', 'Description below', true),
  ],
  async encode({ pixels, shot }, { options, background, facts }) {
    const png = await onto(pixels, background).png({ compressionLevel: 9 }).toBuffer();
    const margin = Number(options.margin ?? 12) * POINTS_PER_MM;
    const own = {
      width: (pixels.width * 72) / facts.density,
      height: (pixels.height * 72) / facts.density,
    };
    const words = options.below === false ? '' : facts.description;
    const page = pageSize(
      String(options.paper ?? 'picture'),
      String(options.lie ?? 'fitting'),
      own,
      margin,
      words !== '',
    );
    const shaper = await serverShaper();
    const document = begin(page, margin, facts, firstFont(shaper));
    const done = collected(document);
    const room = { width: page.width - 2 * margin, height: page.height - 2 * margin };
    const below = words ? heightOfWords(document, shaper, words, room.width) + WORDS : 0;
    const scale = Math.min(
      room.width / own.width,
      Math.max(20, room.height - below) / own.height,
      1,
    );
    const size = { width: own.width * scale, height: own.height * scale };
    const left = margin + (room.width - size.width) / 2;
    const said = saidBy(shot.document, shaper);
    const by = size.width / said.width;
    const whole = document.struct('Document');
    document.addStructure(whole);
    const figure = document.struct('Figure', { alt: facts.description || facts.title }, () => {
      document.image(png, left, margin, size);
      // Painted already: here so that they can be searched and selected.
      document.fillOpacity(0);
      for (const { text, x, y, size: high } of said.lines) {
        document.fontSize(Math.max(1, high * by));
        const place = { text, x: left + x * by, y: margin + (y - high) * by };
        writeWords(document, shaper, place, { lineBreak: false });
      }
      document.fillOpacity(1);
    });
    whole.add(figure);
    if (words) {
      const paragraph = document.struct('P', {}, () => {
        document.fontSize(WORDS);
        const place = { text: words, x: margin, y: margin + size.height + WORDS };
        writeWords(document, shaper, place, { width: room.width });
      });
      whole.add(paragraph);
    }
    whole.end();
    document.end();
    return done;
  },
};

function begin(page: Size, margin: number, facts: Facts, font: string): PDFKit.PDFDocument {
  const document = new PDFDocument({
    size: [page.width, page.height],
    margin,
    pdfVersion: '1.7',
    tagged: true,
    lang: 'en',
    displayTitle: true,
    font,
    info: {
      Title: facts.title,
      Subject: facts.description,
      Keywords: facts.origin,
      Creator: facts.software,
      Producer: facts.software,
      ...(facts.takenAt && { CreationDate: new Date(facts.takenAt) }),
    },
  });
  // Without a time of its own it would say when it was written.
  if (!facts.takenAt) delete document.info.CreationDate;
  // The library puts names into XMP as they are, which is no XML where they hold < or &.
  return Object.assign(document, { _addInfo: () => document.appendXML(xmpDescription(facts)) });
}

function pageSize(paper: string, lie: string, own: Size, margin: number, hasWords: boolean): Size {
  const known = papers[paper];
  if (!known) {
    const below = hasWords ? WORDS * 8 : 0;
    return { width: own.width + 2 * margin, height: own.height + 2 * margin + below };
  }
  const [short, long] = known;
  const across = lie === 'across' || (lie === 'fitting' && own.width > own.height);
  return across ? { width: long, height: short } : { width: short, height: long };
}

function collected(document: PDFKit.PDFDocument): Promise<Uint8Array> {
  const parts: Buffer[] = [];
  return new Promise((resolve, reject) => {
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => resolve(Buffer.concat(parts)));
    document.on('error', reject);
  });
}
