import type { BlockContent, Definition, ListItem, PhrasingContent, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';

/**
 * What captions may say: paragraphs, lists, quotations and code; in them emphasis, code, links and
 * line breaks. Everything else that Markdown has is told by words, and HTML is only its letters.
 */
export type Inline =
  | { kind: 'text' | 'code'; text: string }
  | { kind: 'strong' | 'emphasis'; of: Inline[] }
  | { kind: 'link'; to: string; of: Inline[] }
  | { kind: 'break' };

export type Block =
  | { kind: 'paragraph'; of: Inline[] }
  | { kind: 'code'; text: string }
  | { kind: 'quote'; of: Block[] }
  | { kind: 'list'; start: number | null; items: Block[][] };

/** What lies deeper in lists and quotations comes up to here. */
const DEEPEST = 6;

/** Where a link of a guide may lead. */
const LEADS = /^(https?:\/\/|mailto:)/i;

/** Reads Markdown (CommonMark 0.31). @param markdown of at most a few thousand characters */
export function readWords(markdown: string): Block[] {
  const root = fromMarkdown(markdown);
  const targets = new Map<string, string>();
  for (const node of root.children) {
    if (node.type === 'definition') targets.set(node.identifier, node.url);
  }
  return blocks(root.children, targets, 0);
}

type Targets = ReadonlyMap<string, string>;
type AnyBlock = RootContent | BlockContent | Definition | ListItem;

function blocks(nodes: readonly AnyBlock[], targets: Targets, depth: number): Block[] {
  return nodes.flatMap((node) => block(node, targets, depth));
}

function block(node: AnyBlock, targets: Targets, depth: number): Block[] {
  switch (node.type) {
    case 'paragraph':
      return paragraph(inlines(node.children, targets, 0));
    case 'heading':
      return paragraph([{ kind: 'strong', of: inlines(node.children, targets, 1) }]);
    case 'code':
      return [{ kind: 'code', text: node.value }];
    case 'html':
      return paragraph([{ kind: 'text', text: node.value }]);
    case 'blockquote':
      if (depth >= DEEPEST) return flattened(node.children, targets);
      return [{ kind: 'quote', of: blocks(node.children, targets, depth + 1) }];
    case 'list':
      if (depth >= DEEPEST) return flattened(node.children, targets);
      return [
        {
          kind: 'list',
          start: node.ordered ? (node.start ?? 1) : null,
          items: node.children.map((item) => blocks(item.children, targets, depth + 1)),
        },
      ];
    default:
      return [];
  }
}

const paragraph = (of: Inline[]): Block[] => (of.length ? [{ kind: 'paragraph', of }] : []);

/** What lies so deep, one after the other; by a list of what is left, as it may be deep indeed. */
function flattened(nodes: readonly AnyBlock[], targets: Targets): Block[] {
  const found: Block[] = [];
  const left: AnyBlock[] = [...nodes];
  for (let node = left.shift(); node; node = left.shift()) {
    if (node.type === 'blockquote' || node.type === 'list' || node.type === 'listItem')
      left.unshift(...node.children);
    else found.push(...block(node, targets, DEEPEST));
  }
  return found;
}

function inlines(nodes: readonly PhrasingContent[], targets: Targets, depth: number): Inline[] {
  if (depth > DEEPEST) return joined([{ kind: 'text', text: lettersOf(nodes) }]);
  return joined(nodes.flatMap((node) => inline(node, targets, depth)));
}

function inline(node: PhrasingContent, targets: Targets, depth: number): Inline[] {
  switch (node.type) {
    case 'text':
    case 'html':
      return [{ kind: 'text', text: node.value }];
    case 'inlineCode':
      return [{ kind: 'code', text: node.value }];
    case 'break':
      return [{ kind: 'break' }];
    case 'strong':
    case 'emphasis':
      return wrapped(node.type, inlines(node.children, targets, depth + 1));
    case 'link':
      return link(node.url, inlines(node.children, targets, depth + 1));
    case 'linkReference':
      return link(targets.get(node.identifier) ?? '', inlines(node.children, targets, depth + 1));
    case 'image':
    case 'imageReference':
      return node.alt ? [{ kind: 'text', text: node.alt }] : [];
    default:
      return [];
  }
}

const wrapped = (kind: 'strong' | 'emphasis', of: Inline[]): Inline[] =>
  of.length ? [{ kind, of }] : [];

const link = (to: string, of: Inline[]): Inline[] =>
  LEADS.test(to) && of.length ? [{ kind: 'link', to, of }] : of;

/** Letters that follow each other are one text. */
function joined(all: readonly Inline[]): Inline[] {
  const made: Inline[] = [];
  for (const one of all) {
    const last = made.at(-1);
    if (one.kind === 'text' && last?.kind === 'text') last.text += one.text;
    else if (one.kind !== 'text' || one.text !== '') made.push({ ...one });
  }
  return made;
}

/** The letters of what lies too deep. */
function lettersOf(nodes: readonly PhrasingContent[]): string {
  let letters = '';
  const left: PhrasingContent[] = [...nodes];
  for (let node = left.shift(); node; node = left.shift()) {
    if ('value' in node) letters += node.value;
    else if ('children' in node) left.unshift(...node.children);
  }
  return letters;
}

/** All letters of some words, without what is done to them. */
export function plainWords(blocks: readonly Block[]): string {
  const of = (all: readonly Inline[]): string =>
    all.map((one) => ('of' in one ? of(one.of) : one.kind === 'break' ? '\n' : one.text)).join('');
  const said = (one: Block): string => {
    if (one.kind === 'list') return one.items.map((item) => item.map(said).join('\n')).join('\n');
    if (one.kind === 'quote') return one.of.map(said).join('\n');
    return one.kind === 'code' ? one.text : of(one.of);
  };
  return blocks.map(said).join('\n\n');
}
