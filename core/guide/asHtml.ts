import { xmlText } from '../keep/xmp';
import { hasContents, stepHeading, type Page, type StepPart } from './page';
import type { Block, Inline } from './words';

/** A picture as it stands in a page. */
export interface Shown {
  /** An address, or the picture itself as a data URL. */
  address: string;
  width: number;
  height: number;
  /** What plays in its place, as a data URL; printed, it is the picture. */
  film?: string;
}

const STYLE = `
:root{color-scheme:light dark;--ground:#f6f4ec;--card:#fffefb;--ink:#1c2b2a;--soft:#4c5a57;--line:#d9d4c3;--link:#0b5d66}
@media(prefers-color-scheme:dark){:root{--ground:#151b1a;--card:#1d2524;--ink:#e9e6dc;--soft:#b3bab5;--line:#3a4543;--link:#7fc7cf}}
body{margin:0;overflow-wrap:anywhere;background:var(--ground);color:var(--ink);font:17px/1.55 system-ui,sans-serif}
main{max-width:960px;margin:auto;padding:32px 24px 64px}
h1{font-size:32px;line-height:1.2;margin:0 0 16px}h2{font-size:24px;margin:48px 0 12px}h3{font-size:20px;margin:36px 0 10px}
a{color:var(--link)}nav{border:1px solid var(--line);border-radius:8px;padding:12px 20px;margin:0 0 32px;background:var(--card)}
nav ul{margin:0;padding-left:20px}figure{margin:0}
img,video{max-width:100%;height:auto;border:1px solid var(--line);border-radius:6px;background:#fff}video{max-height:85vh;width:auto}video+img{display:none}
figcaption{margin-top:10px}blockquote{margin:0;padding-left:16px;border-left:3px solid var(--line)}
pre{overflow-x:auto;padding:12px;background:var(--card);border:1px solid var(--line);border-radius:6px}
.numbers{list-style:none;padding:0;color:var(--soft)}.numbers b{color:var(--ink)}
@media print{video{display:none}video+img{display:inline}body{background:#fff;color:#000}main{max-width:none;padding:0}nav{break-after:page}figure{break-inside:avoid}h2,h3{break-after:avoid}}`;

/** Nothing is loaded and nothing runs, whatever stands in it. */
const POLICY =
  "default-src 'none'; img-src data:; media-src data:; style-src 'unsafe-inline'; form-action 'none'";

/**
 * A guide as one page that needs nothing beside it (HTML). It comes in parts, as each picture may be
 * large.
 * @param pictureOf the picture of a step; asked for when it is its turn
 */
export async function* asHtml(
  page: Page,
  pictureOf: (step: StepPart) => Promise<Shown>,
): AsyncGenerator<string> {
  const title = xmlText(page.title);
  yield `<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n`;
  yield `<meta http-equiv="Content-Security-Policy" content="${POLICY}">\n`;
  yield `<meta name="viewport" content="width=device-width, initial-scale=1">\n<meta name="generator" content="Rezzik">\n`;
  yield `<title>${title}</title>\n<style>${STYLE}</style>\n</head>\n<body>\n<main>\n<h1>${title}</h1>\n`;
  yield contents(page);
  yield* body(page, pictureOf);
  yield '</main>\n</body>\n</html>\n';
}

const contents = (page: Page): string =>
  hasContents(page) ? `<nav aria-label="Contents">\n${listOf(page)}</nav>\n` : '';

/** Headings and steps as links, those of a heading below it. */
export function listOf({ parts }: Page, file = ''): string {
  const entry = (id: string, words: string) =>
    `<a href="${file}#${anchorOf(id)}">${xmlText(words)}</a>`;
  let html = '<ul>\n';
  let inside = false;
  parts.forEach((part, i) => {
    if (part.kind === 'step') {
      html += `<li>${entry(part.id, stepHeading(part))}</li>\n`;
      return;
    }
    if (inside) html += '</ul>\n</li>\n';
    inside = parts[i + 1]?.kind === 'step';
    html += `<li>${entry(part.id, part.text)}${inside ? '\n<ul>' : '</li>'}\n`;
  });
  return `${html}${inside ? '</ul>\n</li>\n' : ''}</ul>\n`;
}

const anchorOf = (id: string): string => `at-${id.replace(/[^A-Za-z0-9-]/g, '_')}`;

/** Headings, pictures and captions, well-formed as XML is, too. */
export async function* body(
  page: Page,
  pictureOf: (step: StepPart) => Promise<Shown>,
): AsyncGenerator<string> {
  for (const part of page.parts) {
    const at = `id="${anchorOf(part.id)}"`;
    if (part.kind === 'heading') {
      yield `<h2 ${at}>${xmlText(part.text)}</h2>\n`;
      continue;
    }
    const heading = `h${part.depth}`;
    yield `<${heading} ${at}>${xmlText(stepHeading(part))}</${heading}>\n<figure>\n`;
    yield shown(await pictureOf(part), xmlText(part.alternative));
    const caption = part.caption.map(blockOf).join('') + numbersOf(part);
    if (caption) yield `<figcaption>\n${caption}</figcaption>\n`;
    yield '</figure>\n';
  }
}

function shown({ address, width, height, film }: Shown, alternative: string): string {
  const size = `width="${width}" height="${height}"`;
  const still = `<img src="${xmlText(address)}" ${size} alt="${alternative}" />\n`;
  if (film === undefined) return still;
  return `<video src="${xmlText(film)}" ${size} controls="" playsinline="" aria-label="${alternative}"></video>${still}`;
}

function numbersOf({ numbers }: StepPart): string {
  if (numbers.length === 0) return '';
  const items = numbers.map(
    ({ written, caption }) => `<li><b>${xmlText(written)}</b> ${xmlText(caption)}</li>\n`,
  );
  return `<ul class="numbers">\n${items.join('')}</ul>\n`;
}

function blockOf(block: Block): string {
  switch (block.kind) {
    case 'paragraph':
      return `<p>${inlinesOf(block.of)}</p>\n`;
    case 'code':
      return `<pre><code>${xmlText(block.text)}</code></pre>\n`;
    case 'quote':
      return `<blockquote>\n${block.of.map(blockOf).join('')}</blockquote>\n`;
    case 'list': {
      const items = block.items.map((item) => `<li>${item.map(blockOf).join('')}</li>\n`).join('');
      if (block.start === null) return `<ul>\n${items}</ul>\n`;
      return `<ol start="${block.start}">\n${items}</ol>\n`;
    }
  }
}

const inlinesOf = (all: readonly Inline[]): string => all.map(inlineOf).join('');

function inlineOf(inline: Inline): string {
  switch (inline.kind) {
    case 'text':
      return xmlText(inline.text);
    case 'code':
      return `<code>${xmlText(inline.text)}</code>`;
    case 'break':
      return '<br />';
    case 'strong':
      return `<strong>${inlinesOf(inline.of)}</strong>`;
    case 'emphasis':
      return `<em>${inlinesOf(inline.of)}</em>`;
    case 'link':
      return `<a href="${xmlText(inline.to)}" rel="noreferrer">${inlinesOf(inline.of)}</a>`;
  }
}
