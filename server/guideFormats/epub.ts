import { body, listOf } from '@/core/guide/asHtml';
import type { StepPart } from '@/core/guide/page';
import { xmlText } from '@/core/keep/xmp';
import { pictureFor, type GuideBytes, type GuideWriter, type Material } from './contract';
import { zipped } from './zip';

const XML = '<?xml version="1.0" encoding="utf-8"?>\n';
const CONTAINER = `${XML}<container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/></rootfiles></container>`;
const STYLE =
  'body{font-family:sans-serif;line-height:1.5}img{max-width:100%;height:auto}figure{margin:0}.numbers{list-style:none;padding:0}';

const xhtml = (title: string, inside: string): string =>
  `${XML}<!DOCTYPE html>\n<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="en" xml:lang="en">\n<head><title>${xmlText(title)}</title><style>${STYLE}</style></head>\n<body>\n${inside}</body>\n</html>\n`;

const stepsOf = ({ page }: Material): StepPart[] =>
  page.parts.filter((part): part is StepPart => part.kind === 'step');

/** The parts of the book and their order (EPUB 3.3, § 5). */
function packageOf({ page, id, changedAt }: Material, steps: readonly StepPart[]): string {
  const changed = changedAt.replace(/\.\d+Z$/, 'Z');
  const pictures = steps.map(
    (_, i) => `<item id="p${i + 1}" href="pictures/${i + 1}.png" media-type="image/png"/>`,
  );
  return (
    `${XML}<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id" xml:lang="en">\n` +
    `<metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">urn:uuid:${id}</dc:identifier><dc:title>${xmlText(page.title)}</dc:title><dc:language>en</dc:language><meta property="dcterms:modified">${changed}</meta></metadata>\n` +
    `<manifest><item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/><item id="guide" href="guide.xhtml" media-type="application/xhtml+xml"/>${pictures.join('')}</manifest>\n` +
    `<spine><itemref idref="guide"/></spine>\n</package>\n`
  );
}

/** An electronic book of one chapter (EPUB 3.3). */
export const epub: GuideWriter = {
  name: 'epub',
  mediaType: 'application/epub+zip',
  extension: 'epub',
  async write(material) {
    const { page, name, changedAt } = material;
    const steps = stepsOf(material);
    const places = new Map(steps.map(({ id }, i) => [id, `pictures/${i + 1}.png`]));
    let inside = `<h1>${xmlText(page.title)}</h1>\n`;
    const shown = ({ id }: StepPart) => {
      const { width, height } = pictureFor(material, id);
      return Promise.resolve({ address: places.get(id) ?? '', width, height });
    };
    for await (const part of body(page, shown)) inside += part;
    const list = page.parts.length
      ? listOf(page, 'guide.xhtml').replaceAll('ul>', 'ol>')
      : '<ol><li><a href="guide.xhtml">Guide</a></li></ol>';
    const nav = `<nav epub:type="toc"><h1>Contents</h1>\n${list}</nav>\n`;
    const text = (path: string[], words: string): GuideBytes => ({
      path,
      bytes: Buffer.from(words),
    });
    const files = [
      text(['mimetype'], 'application/epub+zip'),
      text(['META-INF', 'container.xml'], CONTAINER),
      text(['EPUB', 'package.opf'], packageOf(material, steps)),
      text(['EPUB', 'nav.xhtml'], xhtml('Contents', nav)),
      text(['EPUB', 'guide.xhtml'], xhtml(page.title, inside)),
      ...steps.map(({ id }, i) => ({
        path: ['EPUB', 'pictures', `${i + 1}.png`],
        bytes: pictureFor(material, id).png,
      })),
    ];
    const isStored = (path: string) => path === 'mimetype' || path.endsWith('.png');
    return [{ path: [`${name}.epub`], bytes: await zipped(files, new Date(changedAt), isStored) }];
  },
};
