import { Search, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Count } from '@/core/contracts/search';
import { LONGEST_QUERY } from '@/core/search/grammar';
import { giveKeysBack } from '../../keys/focus';
import { formatCount } from '../../ui/format';
import { optionId, Options } from '../../ui/Options';
import { ask, useAsked } from './asked';
import { completions, type Completion } from './complete';
import { Narrow } from './Narrow';
import { useKnown } from './useKnown';

interface Props {
  count: Count | null;
  /** Enter: to what was found. */
  onEnter: () => void;
}

const LIST = 'search-completions';

export const sayCount = ({ count, more }: Count): string =>
  more
    ? `more than ${formatCount(count)} shots`
    : count === 1
      ? '1 shot'
      : `${formatCount(count)} shots`;

/** The one field of the Shelf: words, phrases, and fields with a colon. */
export function SearchField({ count, onEnter }: Props) {
  const { text, called } = useAsked();
  const field = useRef<HTMLInputElement>(null);
  const [at, setAt] = useState<number | null>(null);
  const [chosen, setChosen] = useState(0);
  const known = useKnown();
  const list = useMemo(() => (at === null ? [] : completions(text, at, known)), [text, at, known]);
  useEffect(() => {
    if (!called) return;
    useAsked.setState({ called: false });
    field.current?.focus();
    field.current?.select();
  }, [called]);
  const type = (next: string, place: number) => {
    ask({ text: next });
    setAt(place);
    setChosen(0);
  };
  /** After the text is another, the place in it is set. */
  const put = (next: string, place: number) => {
    type(next, place);
    requestAnimationFrame(() => {
      field.current?.focus();
      field.current?.setSelectionRange(place, place);
    });
  };
  const take = ({ text: next, at: place }: Completion) => put(next, place);
  const key = (event: KeyboardEvent<HTMLInputElement>) => {
    const one = list[chosen];
    if (event.key === 'Escape') {
      if (list.length) setAt(null);
      else giveKeysBack(event.currentTarget);
    } else if (list.length && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      setChosen((n) => (n + (event.key === 'ArrowDown' ? 1 : list.length - 1)) % list.length);
    } else if (one && (event.key === 'Enter' || event.key === 'Tab')) take(one);
    else if (event.key === 'Enter' || event.key === 'ArrowDown') onEnter();
    else return;
    event.preventDefault();
  };
  return (
    <search className="relative flex h-9 max-w-[620px] min-w-0 grow items-center rounded-[7px] border border-edge bg-card focus-within:border-petrol">
      <Search size={16} strokeWidth={1.75} aria-hidden className="mx-2.5 shrink-0 text-soft" />
      <input
        ref={field}
        type="text"
        role="combobox"
        aria-label="Search the Shelf"
        aria-expanded={list.length > 0}
        aria-controls={LIST}
        aria-activedescendant={list.length ? optionId(LIST, chosen) : undefined}
        aria-autocomplete="list"
        placeholder="Words in the picture, “a phrase”, −without, tag:, on:"
        maxLength={LONGEST_QUERY}
        spellCheck={false}
        autoComplete="off"
        value={text}
        onChange={(event) =>
          type(event.target.value, event.target.selectionStart ?? event.target.value.length)
        }
        onKeyDown={key}
        onBlur={() => setAt(null)}
        className="h-full min-w-0 grow bg-transparent outline-none"
      />
      {text.trim() !== '' && count && (
        <span className="shrink-0 px-2 text-[13px] whitespace-nowrap text-soft">
          {sayCount(count)}
        </span>
      )}
      {text !== '' && (
        <button
          type="button"
          aria-label="Clear the search"
          onClick={() => put('', 0)}
          className="grid size-8 shrink-0 place-items-center rounded-[6px] hover:bg-tint"
        >
          <X size={16} strokeWidth={1.75} />
        </button>
      )}
      <Narrow
        onField={(name) => {
          const head = text.trim() ? `${text.trimEnd()} ` : '';
          put(`${head}${name}:`, head.length + name.length + 1);
        }}
      />
      <Options
        id={LIST}
        label="Completions"
        options={list.map(({ label }) => ({ key: label, label }))}
        chosen={chosen}
        className="top-10 w-72"
        onTake={(i) => list[i] && take(list[i])}
      />
    </search>
  );
}
