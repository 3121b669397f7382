import { X } from 'lucide-react';
import { useMemo } from 'react';
import { sourceNames } from '@/core/contracts/provenance';
import { markNames } from '@/core/marks/registry';
import { fold } from '@/core/search/fold';
import { withoutPart } from '@/core/search/grammar';
import type { Part } from '@/core/search/query';
import { sayPart } from '@/core/search/say';
import { Radio, Radios } from '../ui/Radios';
import { chosenLook, classes } from '../ui/classes';
import { ask, readTyped, useAsked } from './search/asked';
import { SaveSearch } from './searches/SaveSearch';
import type { Known } from './search/complete';
import { useKnown } from './search/useKnown';

/** What was understood of the field, one chip a part, and how what is found is ordered. */
export function Chips() {
  const { text, order } = useAsked();
  const parts = useMemo(() => readTyped(text).parts, [text]);
  const known = useKnown();
  if (parts.length === 0) return null;
  return (
    <section
      aria-label="What is asked for"
      className="flex flex-wrap items-center gap-2 border-b border-line px-5 py-2"
    >
      <ul className="contents">
        {parts.map((part) => (
          <li key={part.start}>
            <Chip
              part={part}
              odd={unknown(part, known)}
              typing={part.end === text.length}
              onGone={() => ask({ text: withoutPart(text, part) })}
            />
          </li>
        ))}
      </ul>
      <div className="ml-auto flex items-center gap-2">
        <span className="text-[13px] text-soft">in order of</span>
        <Radios
          label="Order"
          value={order}
          onChange={(next: 'day' | 'fitness') => ask({ order: next })}
          className="flex gap-1"
        >
          {(['day', 'fitness'] as const).map((one) => (
            <Radio
              key={one}
              value={one}
              className={classes(
                'h-7 rounded-full border px-3 text-[13px]',
                chosenLook(one === order),
              )}
            >
              {one}
            </Radio>
          ))}
        </Radios>
        <SaveSearch />
      </div>
    </section>
  );
}

/** Nothing is called so: said at once, since nothing can be found then. */
function unknown({ asks }: Part, known: Known): string | null {
  const isNone = (name: string, names: readonly string[]) =>
    names.length > 0 && !names.some((one) => fold(one).startsWith(fold(name)));
  if (asks.kind === 'from' && isNone(asks.name, [...sourceNames, ...known.from]))
    return 'no such source';
  if (asks.kind === 'tag' && asks.name && isNone(asks.name, known.tag)) return 'no such tag';
  if (asks.kind === 'kept' && asks.folder !== null && isNone(asks.folder, known.kept))
    return 'no such folder';
  if (asks.kind === 'with' && isNone(asks.mark, [...markNames, ...known.with]))
    return 'no such mark';
  return null;
}

interface ChipProps {
  part: Part;
  /** Why nothing can be found by it. */
  odd: string | null;
  /** It stands at the end of the field: it may not be finished. */
  typing: boolean;
  onGone: () => void;
}

function Chip({ part, odd, typing, onGone }: ChipProps) {
  const words = sayPart(part);
  const unclear = part.asks.kind === 'unclear' || odd !== null;
  return (
    <span
      className={classes(
        'flex h-7 max-w-80 items-center rounded-full border pl-3 text-[13px]',
        !unclear && 'border-petrol bg-tint text-petrol',
        unclear && (typing ? 'border-dashed border-edge text-soft' : 'border-brick text-brick'),
      )}
    >
      <button
        type="button"
        className="truncate"
        title="Change this part in the field"
        onClick={() => {
          const field = document.querySelector<HTMLInputElement>('[aria-label="Search the Shelf"]');
          field?.focus();
          field?.setSelectionRange(part.start, part.end);
        }}
      >
        {odd ? `${words} (${odd})` : words}
      </button>
      <button
        type="button"
        aria-label={`Take away: ${words}`}
        onClick={onGone}
        className="mr-0.5 ml-1 grid size-6 place-items-center rounded-full hover:bg-card"
      >
        <X size={14} strokeWidth={2} />
      </button>
    </span>
  );
}
