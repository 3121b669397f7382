import type { BlockContent, ListItem, PhrasingContent, RootContent } from 'mdast';
import { toMarkdown } from 'mdast-util-to-markdown';
import { stepHeading, type Page, type StepPart } from './page';
import type { Block, Inline } from './words';

const letters = (value: string): PhrasingContent => ({ type: 'text', value });

/**
 * A guide as Markdown (CommonMark 0.31).
 * @param pictureOf where the picture of a step lies, as an address relative to the file
 */
export function asMarkdown(page: Page, pictureOf: (step: StepPart) => string): string {
  const children: RootContent[] = [
    { type: 'heading', depth: 1, children: [letters(page.title)] },
    ...page.parts.flatMap((part): RootContent[] => {
      if (part.kind === 'heading') {
        return [{ type: 'heading', depth: 2, children: [letters(part.text)] }];
      }
      const picture: PhrasingContent = {
        type: 'image',
        url: pictureOf(part),
        alt: part.alternative,
      };
      return [
        { type: 'heading', depth: part.depth, children: [letters(stepHeading(part))] },
        { type: 'paragraph', children: [picture] },
        ...part.caption.map(nodeOf),
        ...numbersOf(part),
      ];
    }),
  ];
  return toMarkdown({ type: 'root', children }, { bullet: '-', rule: '-', resourceLink: true });
}

function numbersOf({ numbers }: StepPart): RootContent[] {
  if (numbers.length === 0) return [];
  const children = numbers.map(({ written, caption }): ListItem => ({
    type: 'listItem',
    spread: false,
    children: [
      {
        type: 'paragraph',
        children: [{ type: 'strong', children: [letters(written)] }, letters(` ${caption}`)],
      },
    ],
  }));
  return [{ type: 'list', ordered: false, spread: false, children }];
}

function nodeOf(block: Block): BlockContent {
  switch (block.kind) {
    case 'paragraph':
      return { type: 'paragraph', children: block.of.map(inlineOf) };
    case 'code':
      return { type: 'code', value: block.text };
    case 'quote':
      return { type: 'blockquote', children: block.of.map(nodeOf) };
    case 'list':
      return {
        type: 'list',
        ordered: block.start !== null,
        start: block.start,
        spread: block.items.some((item) => item.length > 1),
        children: block.items.map((item) => ({
          type: 'listItem',
          spread: item.length > 1,
          children: item.map(nodeOf),
        })),
      };
  }
}

function inlineOf(inline: Inline): PhrasingContent {
  switch (inline.kind) {
    case 'text':
      return letters(inline.text);
    case 'code':
      return { type: 'inlineCode', value: inline.text };
    case 'break':
      return { type: 'break' };
    case 'link':
      return { type: 'link', url: inline.to, children: inline.of.map(inlineOf) };
    default:
      return { type: inline.kind, children: inline.of.map(inlineOf) };
  }
}
