import { Copy, Trash2 } from 'lucide-react';
import { formatColour } from '@/core/colour/formats';
import { kindOf } from '@/core/marks/registry';
import { measureWords } from '@/core/geometry/measure';
import { Button } from '../../ui/Button';
import type { Folding } from '../../ui/FoldedRow';
import { Pop } from '../../ui/Pop';
import { notify } from '../../notices/noticeStore';
import { messageOf } from '../../api/ask';
import { eraseAll, kindsPresent } from '../actions/handTools';
import { colourGoesTo } from '../session/lastTool';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { copyWordsOf, stopWords, useWordsOut } from '../recognise/wordsOut';

const icon = { size: 16, strokeWidth: 1.75 };

async function copyWords(words: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(words);
    notify({ key: 'words', tone: 'good', title: 'Copied', lines: [words] });
  } catch (error) {
    notify({ key: 'words', tone: 'bad', title: 'Not copied', lines: [messageOf(error)] });
  }
}

/** Everything, or all of one kind. */
export function useEraserItems(): Folding[] {
  const marks = useDocument((s) => s.history.document.marks);
  if (marks.length === 0) return [];
  return [
    {
      key: 'erase all',
      node: (
        <Button icon={<Trash2 {...icon} />} onClick={() => eraseAll()}>
          Everything
        </Button>
      ),
    },
    ...kindsPresent(marks).map(({ kind, label, count }) => ({
      key: `erase ${kind}`,
      node: (
        <Button look="quiet" onClick={() => eraseAll(kind)}>
          All of {label} ({count})
        </Button>
      ),
    })),
  ];
}

/** The numbers of the last measure, in pixels of the picture. */
export function useMeasureItems(): Folding[] {
  const measured = useLive((s) => s.measured);
  if (!measured) return [];
  const words = measureWords(...measured);
  return [
    {
      key: 'measured',
      node: (
        <output aria-label="Measured" className="font-measure text-[13px]">
          {words}
        </output>
      ),
    },
    {
      key: 'copy measured',
      node: (
        <Button icon={<Copy {...icon} />} onClick={() => void copyWords(words)}>
          Copy the numbers
        </Button>
      ),
    },
  ];
}

/** The colour picked last, in the three ways it is written. */
export function useColourItems(): Folding[] {
  const picked = useTool((s) => s.picked);
  const tool = colourGoesTo();
  const goes = tool ? `It is the next colour of ${kindOf(tool).label}, too.` : '';
  if (!picked) {
    const hint = `Click a pixel to copy its colour. ${goes}`;
    return [{ key: 'colour hint', node: <span className="text-soft">{hint}</span> }];
  }
  const { hex, rgb, hsl } = formatColour(picked);
  return [
    {
      key: 'colour picked',
      node: (
        <span
          aria-hidden
          className="size-6 rounded-full border border-edge"
          style={{ background: hex }}
        />
      ),
    },
    ...[hex, rgb, hsl].map((words, i) => ({
      key: `colour ${i}`,
      node: (
        <Button look="quiet" onClick={() => void copyWords(words)}>
          <span className="font-measure text-[13px]">{words}</span>
        </Button>
      ),
    })),
    { key: 'colour goes', node: <span className="text-[13px] text-soft">{goes}</span> },
  ];
}

/** The words read last, which are on the clipboard already where the browser let them. */
export function useWordsItems(): Folding[] {
  const { out } = useWordsOut();
  const view = useDocument((s) => s.history.document.view.crop);
  switch (out.name) {
    case 'none':
      return [
        {
          key: 'words all',
          node: (
            <Button look="quiet" onClick={() => void copyWordsOf(view)}>
              All words of the picture
            </Button>
          ),
        },
      ];
    case 'reading':
      return [
        {
          key: 'words reading',
          node: (
            <span role="status" className="text-soft">
              Reading the words …
            </span>
          ),
        },
        {
          key: 'words stop',
          node: (
            <Button hint="Esc" onClick={stopWords}>
              Stop
            </Button>
          ),
        },
      ];
    case 'failed':
      return [
        {
          key: 'words failed',
          node: (
            <span role="alert" className="max-w-[36rem] truncate text-brick" title={out.why}>
              The words could not be read: {out.why}
            </span>
          ),
        },
      ];
    case 'read':
      return readItems(out.text, out.copied);
  }
}

function readItems(text: string, copied: boolean): Folding[] {
  if (text === '') {
    const none = (
      <span role="status" className="text-soft">
        No words were found there.
      </span>
    );
    return [{ key: 'words missing', node: none }];
  }
  return [
    {
      key: 'words copy',
      node: (
        <Button icon={<Copy {...icon} />} onClick={() => void copyWords(text)}>
          {copied ? 'Copied' : 'Copy'}
        </Button>
      ),
    },
    {
      key: 'words read',
      node: (
        <Pop
          label="Words of the region"
          trigger={
            <Button look="quiet">
              <span className="sr-only">Show the words:</span>
              <span className="max-w-[22rem] truncate text-[13px]">{text.slice(0, 200)}</span>
            </Button>
          }
        >
          <textarea
            aria-label="Words of the region"
            readOnly
            value={text}
            rows={Math.min(12, text.split('\n').length + 1)}
            className="w-[26rem] max-w-[calc(100vw-3rem)] rounded-[6px] border border-edge bg-card px-2 py-1 text-[13px]"
          />
        </Pop>
      ),
    },
  ];
}
