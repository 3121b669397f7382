import { ListFilter } from 'lucide-react';
import { useState } from 'react';
import { Pop } from '../../ui/Pop';

const fields: readonly [string, string][] = [
  ['tag', 'tag:Faults · tag:none'],
  ['title', 'title:"seed order"'],
  ['window', 'window:sensors'],
  ['program', 'program:register'],
  ['description', 'description:hedge'],
  ['from', 'from:camera · from:pasted'],
  ['kept', 'kept:Guides · kept:none'],
  ['with', 'with:arrow · with:hidden'],
  ['size', 'size:>800x600'],
  ['on', 'on:yesterday · on:"3 March"'],
  ['since', 'since:"last week"'],
  ['before', 'before:2026-03-01'],
  ['between', 'between:2026-03-01..2026-03-09'],
];

/** The fields by name, for those who do not know them by heart. */
export function Narrow({ onField }: { onField: (name: string) => void }) {
  const [open, setOpen] = useState(false);
  const button = (
    <button
      type="button"
      className="flex h-full shrink-0 items-center gap-1.5 rounded-r-[6px] border-l border-line px-2.5 text-[13px] hover:bg-tint"
    >
      <ListFilter size={16} strokeWidth={1.75} />
      Narrow
    </button>
  );
  return (
    <Pop trigger={button} label="Fields" open={open} onOpen={setOpen} keepsFocus className="w-80">
      <p className="px-2 pb-1 text-[13px] text-soft">Ask for shots by …</p>
      <ul>
        {fields.map(([name, example]) => (
          <li key={name}>
            <button
              type="button"
              onClick={() => {
                setOpen(false);
                onField(name);
              }}
              className="flex w-full items-baseline gap-3 rounded-[6px] px-2 py-1 text-left hover:bg-tint"
            >
              <span className="w-24 shrink-0 font-bold">{name}</span>
              <span className="truncate font-measure text-[12px] text-soft">{example}</span>
            </button>
          </li>
        ))}
      </ul>
    </Pop>
  );
}
