import { Copy, Trash2 } from 'lucide-react';
import { formatColour } from '@/core/colour/formats';
import { kindOf } from '@/core/marks/registry';
import { measureWords } from '@/core/geometry/measure';
import { Button } from '../../ui/Button';
import { notify } from '../../shell/noticeStore';
import { messageOf } from '../../api/client';
import { colourGoesTo, eraseAll, kindsPresent } from '../handTools';
import { useSession } from '../session';
import { copyWordsOf, stopWords, useWordsOut } from '../wordsOut';

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
export function EraserSettings() {
  const marks = useSession((s) => s.history.document.marks);
  if (marks.length === 0) return null;
  return (
    <>
      {kindsPresent(marks).map(({ kind, label, count }) => (
        <Button key={kind} look="quiet" onClick={() => eraseAll(kind)}>
          All of {label} ({count})
        </Button>
      ))}
      <Button icon={<Trash2 {...icon} />} onClick={() => eraseAll()}>
        Everything
      </Button>
    </>
  );
}

/** The numbers of the last measure, in pixels of the picture. */
export function MeasureSettings() {
  const measured = useSession((s) => s.measured);
  if (!measured) return null;
  const words = measureWords(...measured);
  return (
    <>
      <output aria-label="Measured" className="font-measure text-[13px]">
        {words}
      </output>
      <Button icon={<Copy {...icon} />} onClick={() => void copyWords(words)}>
        Copy the numbers
      </Button>
    </>
  );
}

/** The colour picked last, in the three ways it is written. */
export function ColourSettings() {
  const picked = useSession((s) => s.picked);
  const tool = colourGoesTo();
  const goes = tool ? `It is the next colour of ${kindOf(tool).label}, too.` : '';
  if (!picked) return <span className="text-soft">Click a pixel to copy its colour. {goes}</span>;
  const { hex, rgb, hsl } = formatColour(picked);
  return (
    <>
      <span
        aria-hidden
        className="size-6 rounded-full border border-edge"
        style={{ background: hex }}
      />
      {[hex, rgb, hsl].map((words) => (
        <Button key={words} look="quiet" onClick={() => void copyWords(words)}>
          <span className="font-measure text-[13px]">{words}</span>
        </Button>
      ))}
      <span className="text-[13px] text-soft">{goes}</span>
    </>
  );
}

/** The words read last, which are on the clipboard already where the browser let them. */
export function WordsSettings() {
  const { out } = useWordsOut();
  const view = useSession((s) => s.history.document.view.crop);
  return (
    <>
      {out.name === 'none' && (
        <Button look="quiet" onClick={() => void copyWordsOf(view)}>
          All words of the picture
        </Button>
      )}
      {out.name === 'reading' && (
        <>
          <span role="status" className="text-soft">
            Reading the words …
          </span>
          <Button hint="Esc" onClick={stopWords}>
            Stop
          </Button>
        </>
      )}
      {out.name === 'failed' && (
        <span role="alert" className="text-brick">
          The words could not be read: {out.why}
        </span>
      )}
      {out.name === 'read' && out.text === '' && (
        <span role="status" className="text-soft">
          No words were found there.
        </span>
      )}
      {out.name === 'read' && out.text !== '' && (
        <>
          <textarea
            aria-label="Words of the region"
            readOnly
            value={out.text}
            rows={Math.min(4, out.text.split('\n').length)}
            className="min-w-[260px] grow rounded-[6px] border border-edge bg-card px-2 py-1 text-[13px]"
          />
          <Button icon={<Copy {...icon} />} onClick={() => void copyWords(out.text)}>
            {out.copied ? 'Copied' : 'Copy'}
          </Button>
        </>
      )}
    </>
  );
}
