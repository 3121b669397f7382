import {
  Bookmark,
  Document,
  ExternalHyperlink,
  Footer,
  HeadingLevel,
  ImageRun,
  InternalHyperlink,
  Packer,
  PageNumber,
  Paragraph,
  TextRun,
  type ParagraphChild,
} from 'docx';
import { hasContents, stepHeading, type Part, type StepPart } from '@/core/guide/page';
import { pictureFor, type GuideWriter, type Material } from './contract';
import { linesOf, type Line, type Run } from './runs';

/** Pixels of a page between its margins (A4, 96 on an inch). */
const ROOM = { width: 600, height: 780 };
/** A twentieth of a point. */
const INDENT = 360;

const LEVELS = { 2: HeadingLevel.HEADING_1, 3: HeadingLevel.HEADING_2 } as const;

/** A document for word processors (ISO/IEC 29500, Office Open XML). */
export const docx: GuideWriter = {
  name: 'docx',
  mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  extension: 'docx',
  async write(material) {
    const { page, name } = material;
    const children = [
      new Paragraph({ heading: HeadingLevel.TITLE, children: [new TextRun(xml(page.title))] }),
      ...(hasContents(page) ? contents(page.parts) : []),
      ...page.parts.flatMap((part) =>
        part.kind === 'heading' ? [headingOf(part, LEVELS[2], part.text)] : stepOf(part, material),
      ),
    ];
    const footer = new Footer({
      children: [
        new Paragraph({
          alignment: 'center',
          children: [
            new TextRun({ children: [PageNumber.CURRENT, ' / ', PageNumber.TOTAL_PAGES] }),
          ],
        }),
      ],
    });
    const document = new Document({
      title: xml(page.title),
      creator: 'Rezzik',
      description: '',
      styles: {
        default: { document: { run: { size: 22, language: { value: 'en-GB' } } } },
      },
      sections: [{ footers: { default: footer }, children }],
    });
    return [{ path: [`${name}.docx`], bytes: await Packer.toBuffer(document) }];
  },
};

/** What XML cannot hold at all is left out; the library escapes the rest. */
const xml = (text: string): string =>
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');

/** A bookmark begins with a letter and has forty characters at most. */
const markOf = (id: string): string => `at_${id.replace(/[^A-Za-z0-9]/g, '')}`.slice(0, 40);

const headingOf = ({ id }: Part, heading: (typeof LEVELS)[2 | 3], text: string): Paragraph =>
  new Paragraph({
    heading,
    keepNext: true,
    children: [new Bookmark({ id: markOf(id), children: [new TextRun(xml(text))] })],
  });

const contents = (parts: readonly Part[]): Paragraph[] =>
  parts.map((part) => {
    const words = part.kind === 'heading' ? part.text : stepHeading(part);
    const link = new InternalHyperlink({
      anchor: markOf(part.id),
      children: [new TextRun({ text: xml(words), style: 'Hyperlink' })],
    });
    return new Paragraph({
      indent: { left: part.kind === 'heading' ? 0 : INDENT },
      children: [link],
    });
  });

function stepOf(part: StepPart, material: Material): Paragraph[] {
  const { png, width, height } = pictureFor(material, part.id);
  const by = Math.min(1, ROOM.width / width, ROOM.height / height);
  const alternative = xml(part.alternative);
  const picture = new ImageRun({
    type: 'png',
    data: Buffer.from(png),
    transformation: {
      width: Math.max(1, Math.round(width * by)),
      height: Math.max(1, Math.round(height * by)),
    },
    altText: { title: xml(stepHeading(part)), description: alternative, name: markOf(part.id) },
  });
  return [
    headingOf(part, LEVELS[part.depth], stepHeading(part)),
    new Paragraph({ children: [picture] }),
    ...linesOf(part.caption).map(lineOf),
    ...part.numbers.map(
      ({ written, caption }) =>
        new Paragraph({
          children: [
            new TextRun({ text: `${xml(written)} `, bold: true }),
            new TextRun(xml(caption)),
          ],
        }),
    ),
  ];
}

const lineOf = ({ depth, before, runs }: Line): Paragraph =>
  new Paragraph({
    indent: { left: depth * INDENT },
    spacing: { after: 120 },
    children: [...(before ? [new TextRun(`${before} `)] : []), ...runs.flatMap(runOf)],
  });

function runOf({ text, strong, emphasis, code, link }: Run): ParagraphChild[] {
  const lines = text.split('\n');
  const runs = lines.map(
    (line, i) =>
      new TextRun({
        text: xml(line),
        bold: strong,
        italics: emphasis,
        ...(code && { font: 'monospace' }),
        ...(i > 0 && { break: 1 }),
        ...(link && { style: 'Hyperlink' }),
      }),
  );
  return link ? [new ExternalHyperlink({ link, children: runs })] : runs;
}
