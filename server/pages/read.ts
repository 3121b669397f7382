import { z } from 'zod';
import { asLine } from '@/core/values/text';
import { limits } from '@/core/values/limits';
import type { Paragraph } from '@/core/recognition/words';
import type { DescribedPart } from '@/core/screen/parts/described';
import type { Tab } from './tab';

const MOST_WORDS = 60_000;
const MOST_PARTS = 20_000;

const box = z.tuple([z.number(), z.number(), z.number(), z.number()]);
const readSchema = z.object({
  title: z.string(),
  /** In blocks, as they follow each other. */
  blocks: z.array(z.array(z.tuple([z.string(), box]))),
  parts: z.array(z.tuple([z.string(), z.string(), box])),
});

/** What stands on a page and where, in pixels of its picture. */
export interface Read {
  title: string;
  words: Paragraph[];
  parts: DescribedPart[];
}

/**
 * Words that can be seen, by the block they stand in, and what a person would point at: links,
 * buttons, fields, headings, pictures, tables and the like, each with what it is and is called.
 */
const READER = `(() => {
  const seen = (element) => element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  const boxOf = (rect) => [rect.left + scrollX, rect.top + scrollY, rect.width, rect.height];
  const blocks = new Map();
  let words = 0;
  const walker = document.createTreeWalker(document.body ?? document.documentElement, NodeFilter.SHOW_TEXT);
  const range = document.createRange();
  for (let node = walker.nextNode(); node && words < ${MOST_WORDS}; node = walker.nextNode()) {
    const parent = node.parentElement;
    if (!parent || !node.data.trim() || /^(SCRIPT|STYLE|NOSCRIPT|TEMPLATE)$/.test(parent.tagName)) continue;
    if (!seen(parent)) continue;
    let block = parent;
    while (block.parentElement && getComputedStyle(block).display.startsWith('inline')) block = block.parentElement;
    for (const { 0: word, index } of node.data.matchAll(/\\S+/g)) {
      range.setStart(node, index);
      range.setEnd(node, index + word.length);
      const rect = range.getBoundingClientRect();
      if (rect.width < 1 || rect.height < 1) continue;
      if (!blocks.has(block)) blocks.set(block, []);
      blocks.get(block).push([word.slice(0, 400), boxOf(rect)]);
      words += 1;
    }
  }
  const kinds = {
    A: 'link', BUTTON: 'button', INPUT: 'field', TEXTAREA: 'field', SELECT: 'choice', IMG: 'picture',
    SVG: 'picture', VIDEO: 'video', CANVAS: 'picture', TABLE: 'table', TR: 'row', TD: 'cell', TH: 'cell',
    H1: 'heading', H2: 'heading', H3: 'heading', H4: 'heading', H5: 'heading', H6: 'heading', P: 'paragraph',
    LI: 'item', UL: 'list', OL: 'list', NAV: 'navigation', HEADER: 'header', FOOTER: 'footer', MAIN: 'main part',
    ASIDE: 'side', ARTICLE: 'article', SECTION: 'section', FORM: 'form', FIGURE: 'figure', PRE: 'text', BLOCKQUOTE: 'quotation',
  };
  const parts = [];
  for (const element of document.querySelectorAll(Object.keys(kinds).join(',') + ',[role=button],[role=link]')) {
    if (parts.length >= ${MOST_PARTS}) break;
    if (!seen(element)) continue;
    const rect = element.getBoundingClientRect();
    if (rect.width < 2 || rect.height < 2) continue;
    const name = element.getAttribute('aria-label') || element.alt || element.placeholder
      || (/^(A|BUTTON|H.|TD|TH|LI|P|FIGURE)$/.test(element.tagName) ? element.innerText : '') || '';
    parts.push([kinds[element.tagName.toUpperCase()] ?? element.getAttribute('role'), String(name).slice(0, 200), boxOf(rect)]);
  }
  return { title: String(document.title).slice(0, 1000), blocks: [...blocks.values()], parts };
})()`;

/** @param size of the picture: what lies beyond it is left out */
export async function readPage(
  tab: Tab,
  scale: number,
  size: { width: number; height: number },
): Promise<Read> {
  const { title, blocks, parts } = await tab.value(READER, readSchema);
  const rect = ([x, y, width, height]: z.infer<typeof box>) => ({
    x: Math.round(x * scale),
    y: Math.round(y * scale),
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
  });
  const isOn = ({ x, y }: { x: number; y: number }) =>
    x >= 0 && y >= 0 && x < size.width && y < size.height;
  return {
    title: asLine(title, limits.titleLength),
    words: blocks.map((block) =>
      linesOf(block.map(([text, at]) => ({ text, box: rect(at) })).filter((w) => isOn(w.box))),
    ),
    parts: parts
      .map(([kind, name, at]) => ({ ...rect(at), words: named(kind, name) }))
      .filter((part) => isOn(part)),
  };
}

const named = (kind: string, name: string): string => {
  const clean = asLine(name.replace(/\s+/g, ' '), 120);
  return clean ? `${kind} “${clean}”` : kind;
};

/** Words one after the other, as lines: one that stands lower begins the next. */
function linesOf(words: Paragraph[number][number][]): Paragraph {
  const lines: Paragraph[number][number][][] = [];
  for (const word of words) {
    const before = lines.at(-1)?.at(-1);
    const same =
      before && word.box.y < before.box.y + before.box.height / 2 && word.box.x > before.box.x;
    if (same) lines.at(-1)?.push(word);
    else lines.push([word]);
  }
  return lines;
}
