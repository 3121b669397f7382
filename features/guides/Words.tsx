import { Fragment, type ReactNode } from 'react';
import type { Block, Inline } from '@/core/guide/words';

/** What a caption says, as it will be written. */
export const Words = ({ blocks }: { blocks: readonly Block[] }): ReactNode =>
  blocks.map((block, i) => <One key={i} block={block} />);

function One({ block }: { block: Block }) {
  switch (block.kind) {
    case 'paragraph':
      return (
        <p className="mb-2">
          <Inlines all={block.of} />
        </p>
      );
    case 'code':
      return (
        <pre className="mb-2 overflow-x-auto rounded-[6px] border border-line bg-paper p-2 font-measure text-[13px]">
          {block.text}
        </pre>
      );
    case 'quote':
      return (
        <blockquote className="mb-2 border-l-2 border-edge pl-3">
          <Words blocks={block.of} />
        </blockquote>
      );
    case 'list': {
      const items = block.items.map((item, i) => (
        <li key={i}>
          <Words blocks={item} />
        </li>
      ));
      return block.start === null ? (
        <ul className="mb-2 list-disc pl-6">{items}</ul>
      ) : (
        <ol start={block.start} className="mb-2 list-decimal pl-6">
          {items}
        </ol>
      );
    }
  }
}

const Inlines = ({ all }: { all: readonly Inline[] }) =>
  all.map((inline, i) => <Fragment key={i}>{shown(inline)}</Fragment>);

function shown(inline: Inline): ReactNode {
  switch (inline.kind) {
    case 'text':
      return inline.text;
    case 'code':
      return <code className="font-measure text-[0.9em]">{inline.text}</code>;
    case 'break':
      return <br />;
    case 'strong':
      return (
        <strong>
          <Inlines all={inline.of} />
        </strong>
      );
    case 'emphasis':
      return (
        <em>
          <Inlines all={inline.of} />
        </em>
      );
    case 'link':
      return (
        <a href={inline.to} target="_blank" rel="noreferrer" className="text-petrol underline">
          <Inlines all={inline.of} />
        </a>
      );
  }
}
