import { PenLine } from 'lucide-react';
import { useMemo, useRef, type KeyboardEvent } from 'react';
import type { GuideShot, GuideStep } from '@/core/contracts/guide';
import { spanOf, withNumbers } from '@/core/guide/numbering';
import { readWords } from '@/core/guide/words';
import { limits } from '@/core/values/limits';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { notify } from '../notices/noticeStore';
import { giveKeysBack } from '../keys/focus';
import { followLink } from '../thread/navigate';
import { Button } from '../ui/Button';
import { changeItem, removeItem } from './edit';
import { readGuide, useGuide } from './guideStore';
import { useGuideShots, useNumbers } from './useNumbers';
import { Words } from './Words';

/** As large as it is looked at here, pixels. */
const SEEN = 1400;

/** A step as large as there is room: heading, picture, caption. */
export function StepCard({ step }: { step: GuideStep }) {
  const shot = useGuideShots().get(step.shot);
  const numbers = useNumbers().get(step.id);
  return (
    <>
      <p className="text-soft">{numbers ? `Step ${spanOf(numbers)}` : 'Step'}</p>
      <input
        aria-label="Heading of the step"
        placeholder={shot?.name || 'Heading'}
        value={step.heading}
        maxLength={limits.titleLength}
        onChange={(event) => changeItem(step.id, { heading: event.target.value })}
        onKeyDown={(event) => {
          if (event.key === 'Escape') giveKeysBack(event.currentTarget);
          if (event.key !== 'Enter') return;
          event.preventDefault();
          document.getElementById(`caption-${step.id}`)?.focus();
        }}
        className="mb-3 w-full rounded-[6px] border border-transparent bg-transparent py-1 font-name text-xl hover:border-edge focus:border-edge focus:bg-card focus:px-2"
      />
      {shot && shot.state !== 'there' ? (
        <Missing shot={shot} step={step} />
      ) : (
        <Picture step={step} shot={shot} first={numbers?.first ?? 1} />
      )}
      <Caption step={step} />
      {numbers?.discs.some(({ caption }) => caption) && (
        <p className="mt-3 text-soft">
          {numbers.discs
            .filter(({ caption }) => caption)
            .map(({ written, caption }) => `${written} ${caption}`)
            .join(' · ')}
        </p>
      )}
      {shot?.state === 'there' && (
        <p className="mt-3 text-soft">
          {shot.description
            ? `For people who do not see it: ${shot.description}`
            : 'There are no words yet for people who do not see this picture.'}{' '}
          <a
            href={shot.clip ? `/clips/${shot.id}` : `/shots/${shot.id}`}
            onClick={followLink}
            className="inline-flex items-center gap-1 text-petrol underline"
          >
            <PenLine size={14} strokeWidth={1.75} aria-hidden />
            {shot.clip ? 'Open the clip' : 'Open in Mark'}
          </a>
        </p>
      )}
    </>
  );
}

function Picture({
  step,
  shot,
  first,
}: {
  step: GuideStep;
  shot: GuideShot | undefined;
  first: number;
}) {
  const look = useGuide((s) => s.open?.guide.look);
  const longest = useGuide((s) => s.open?.guide.longest) ?? SEEN;
  if (!shot) return <div className="h-40 rounded-[7px] bg-desk" />;
  const query = new URLSearchParams({
    ...{ format: 'png', first: String(first), longest: String(Math.min(longest, SEEN)) },
    ...(look && { look }),
    r: `${shot.revision}.${shot.clip?.cover ?? 0}`,
  });
  return (
    <img
      src={`/api/shots/${step.shot}/picture?${query.toString()}`}
      alt={shot.description || step.heading || shot.name}
      className="max-h-[50vh] max-w-full rounded-[7px] border border-line"
    />
  );
}

function Missing({ shot, step }: { shot: GuideShot; step: GuideStep }) {
  const restore = async () => {
    await api.restore(shot.id);
    const id = useGuide.getState().open?.id;
    if (id) await readGuide(id);
  };
  return (
    <div className="flex flex-wrap items-center gap-3 rounded-[7px] border border-brick p-4">
      <p className="grow">
        {shot.state === 'gone'
          ? 'This shot was deleted for good. The step is left out of what is kept.'
          : 'This shot lies in the Bin. The step is left out of what is kept.'}
      </p>
      {shot.state === 'in the bin' && (
        <Button
          onClick={() =>
            void restore().catch((error: unknown) =>
              notify({
                key: 'guide',
                tone: 'bad',
                title: 'Not restored',
                lines: [messageOf(error)],
              }),
            )
          }
        >
          Take it out of the Bin
        </Button>
      )}
      <Button onClick={() => removeItem(useGuide.getState().open?.guide.items ?? [], step.id)}>
        Remove the step
      </Button>
    </div>
  );
}

const signs: Record<string, string> = { b: '**', i: '*' };

function Caption({ step }: { step: GuideStep }) {
  const field = useRef<HTMLTextAreaElement>(null);
  const numbers = useNumbers().get(step.id);
  const seen = useMemo(
    () => readWords(numbers ? withNumbers(step.caption, numbers) : step.caption),
    [step.caption, numbers],
  );
  const isPlain = step.caption.trim() === '' || !/[*_`[\]{}<>#\\\n-]|\d\./.test(step.caption);
  const key = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    if (event.key === 'Escape') giveKeysBack(event.currentTarget);
    const sign = (event.ctrlKey || event.metaKey) && !event.altKey ? signs[event.key] : undefined;
    if (!sign) return;
    event.preventDefault();
    // As typed, so that the field’s own undo knows of it.
    const { selectionStart, selectionEnd, value } = event.currentTarget;
    const inside = value.slice(selectionStart, selectionEnd);
    document.execCommand('insertText', false, `${sign}${inside}${sign}`);
    const at = selectionStart + sign.length;
    event.currentTarget.setSelectionRange(at, at + inside.length);
  };
  return (
    <>
      <textarea
        id={`caption-${step.id}`}
        ref={field}
        aria-label="Caption"
        aria-describedby="caption-help"
        placeholder="Caption"
        rows={Math.min(12, Math.max(2, step.caption.split('\n').length))}
        maxLength={limits.guideCaption}
        value={step.caption}
        onChange={(event) => changeItem(step.id, { caption: event.target.value })}
        onKeyDown={key}
        className="mt-3 w-full rounded-[8px] border border-edge bg-card px-3 py-2"
      />
      <p id="caption-help" className="text-[13px] text-soft">
        Markdown: **bold**, *italic*, - lists, [words](address). {'{1}'} is the first number in the
        picture.
      </p>
      {!isPlain && (
        <div
          aria-label="Caption as it will be written"
          role="group"
          className="mt-2 border-l-2 border-petrol pl-3"
        >
          <Words blocks={seen} />
        </div>
      )}
    </>
  );
}
