import { X } from 'lucide-react';
import { useEffect, useId, useState, type KeyboardEvent } from 'react';
import { limits } from '@/core/values/limits';
import { fold } from '@/core/search/fold';
import { giveKeysBack } from '../keys/focus';
import { classes } from '../ui/classes';
import { optionId, Options } from '../ui/Options';
import { readTags, useTagColour, useTags } from './tagStore';

interface Props {
  label?: string;
  names: readonly string[];
  onChange: (names: readonly string[]) => void;
}

const MOST = 6;
/** What so many proposals need, pixels. */
const ROOM = 220;

const same = (a: string, b: string): boolean => fold(a.trim()) === fold(b.trim());

/** The tags of something: each with a way to take it off, and a field with completion for more. */
export function TagsField({ label = 'Tags', names, onChange }: Props) {
  const { tags, loaded } = useTags();
  const [typed, setTyped] = useState('');
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState(-1);
  /** There is no room below for what is proposed. */
  const [above, setAbove] = useState(false);
  const list = useId();
  useEffect(() => {
    if (!loaded) void readTags();
  }, [loaded]);
  const begun = fold(typed.trim());
  const proposals = tags
    .filter(({ name }) => fold(name).startsWith(begun) && !names.some((one) => same(one, name)))
    .slice(0, MOST);
  const shown = open && proposals.length > 0;
  const add = (text: string) => {
    const name = text
      .replace(/["“”„]/g, '')
      .trim()
      .slice(0, limits.tagLength);
    setTyped('');
    setChosen(-1);
    if (!name || names.some((one) => same(one, name))) return;
    const known = tags.find((tag) => same(tag.name, name));
    onChange([...names, known?.name ?? name]);
  };
  const key = (event: KeyboardEvent<HTMLInputElement>) => {
    const proposal = proposals[chosen];
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      setOpen(true);
      const by = event.key === 'ArrowDown' ? 1 : -1;
      setChosen((n) => Math.max(-1, Math.min(proposals.length - 1, n + by)));
    } else if (event.key === 'Enter' || event.key === ',') {
      if (typed.trim() || proposal) add(proposal?.name ?? typed);
      else return;
    } else if (event.key === 'Backspace' && typed === '' && names.length) {
      onChange(names.slice(0, -1));
    } else if (event.key === 'Escape') {
      if (!typed && !shown) return giveKeysBack(event.currentTarget);
      setTyped('');
      setOpen(false);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="relative flex flex-wrap items-center gap-1.5" role="group" aria-label={label}>
      {names.map((name) => (
        <TagChip key={name} name={name} onGone={() => onChange(names.filter((n) => n !== name))} />
      ))}
      <input
        type="text"
        role="combobox"
        aria-label="Add a tag"
        aria-expanded={shown}
        aria-controls={list}
        aria-activedescendant={optionId(list, chosen)}
        placeholder="+ tag"
        autoComplete="off"
        maxLength={limits.tagLength}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setOpen(true);
          setChosen(-1);
        }}
        onFocus={(event) => {
          const { bottom } = event.currentTarget.getBoundingClientRect();
          setAbove(bottom + ROOM > window.innerHeight);
          setOpen(true);
        }}
        onBlur={() => {
          setOpen(false);
          add(typed);
        }}
        onKeyDown={key}
        className="h-7 w-24 grow rounded-full border border-edge bg-card px-3 text-[13px] placeholder:text-soft"
      />
      <Options
        id={list}
        label="Known tags"
        options={shown ? proposals.map(({ id, name }) => ({ key: id, label: name })) : []}
        chosen={chosen}
        className={classes('my-1 w-48', above ? 'bottom-full' : 'top-full')}
        onTake={(i) => proposals[i] && add(proposals[i].name)}
      />
    </div>
  );
}

function TagChip({ name, onGone }: { name: string; onGone: () => void }) {
  const colour = useTagColour(name);
  return (
    <span className="flex h-7 max-w-full items-center gap-1.5 rounded-full border border-edge bg-tint pl-2.5 text-[13px]">
      <span
        aria-hidden
        className="size-2.5 shrink-0 rounded-[3px] border border-edge"
        style={{ background: colour }}
      />
      <span className="truncate">{name}</span>
      <button
        type="button"
        aria-label={`Take off the tag ${name}`}
        onClick={onGone}
        className="grid size-6 shrink-0 place-items-center rounded-full hover:bg-card"
      >
        <X size={13} strokeWidth={2} />
      </button>
    </span>
  );
}
