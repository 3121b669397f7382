import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import { onto } from './raw';
import { field, type Format } from './contract';

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
    field.on('words', 'Description below', true),
  ],
  async encode({ pixels }, { options, background, facts }) {
    const png = await onto(pixels, background).png({ compressionLevel: 9 }).toBuffer();
    const margin = Number(options.margin ?? 12) * POINTS_PER_MM;
    const own = {
      width: (pixels.width * 72) / facts.density,
      height: (pixels.height * 72) / facts.density,
    };
    const words = options.words === false ? '' : facts.description;
    const page = pageSize(
      String(options.paper ?? 'picture'),
      String(options.lie ?? 'fitting'),
      own,
      margin,
      words !== '',
    );
    const document = new PDFDocument({
      size: [page.width, page.height],
      margin,
      pdfVersion: '1.7',
      tagged: true,
      lang: 'en',
      displayTitle: true,
      font: font('400'),
      info: {
        Title: facts.title,
        Subject: facts.description,
        Keywords: facts.origin,
        Creator: facts.software,
        Producer: facts.software,
        ...(facts.takenAt && { CreationDate: new Date(facts.takenAt) }),
      },
    });
    const done = collected(document);
    const room = { width: page.width - 2 * margin, height: page.height - 2 * margin };
    document.font(font('400')).fontSize(WORDS);
    const below = words ? document.heightOfString(words, { width: room.width }) + WORDS : 0;
    const scale = Math.min(
      room.width / own.width,
      Math.max(20, room.height - below) / own.height,
      1,
    );
    const size = { width: own.width * scale, height: own.height * scale };
    const figure = document.struct('Figure', { alt: facts.description || facts.title }, () => {
      document.image(png, margin + (room.width - size.width) / 2, margin, size);
    });
    document.addStructure(figure);
    if (words) {
      const paragraph = document.struct('P', {}, () => {
        document.text(words, margin, margin + size.height + WORDS, { width: room.width });
      });
      document.addStructure(paragraph);
    }
    document.end();
    return done;
  },
};

const font = (weight: string): string =>
  join(process.cwd(), 'public', 'fonts', `atkinson-hyperlegible-next-latin-${weight}-normal.ttf`);

function pageSize(
  paper: string,
  lie: string,
  own: { width: number; height: number },
  margin: number,
  hasWords: boolean,
): { width: number; height: number } {
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
