import { classes } from './classes';

interface Props {
  id: string;
  label: string;
  options: readonly { key: string; label: string }[];
  /** The one that Enter takes; −1 for none. */
  chosen: number;
  className?: string;
  onTake: (index: number) => void;
}

/** The id of an option, for the field that it is proposed in (`aria-activedescendant`). */
export const optionId = (list: string, chosen: number): string | undefined =>
  chosen >= 0 ? `${list}-${chosen}` : undefined;

/** What is proposed below a field while it is typed; the focus stays in the field. */
export function Options({ id, label, options, chosen, className, onTake }: Props) {
  return (
    <ul
      id={id}
      role="listbox"
      aria-label={label}
      hidden={options.length === 0}
      className={classes(
        'absolute left-0 z-30 max-h-72 overflow-auto rounded-[9px] border border-line bg-card p-1 shadow-raised',
        className,
      )}
    >
      {options.map((option, i) => (
        <li
          key={option.key}
          id={optionId(id, i)}
          role="option"
          aria-selected={i === chosen}
          onPointerDown={(event) => {
            event.preventDefault();
            onTake(i);
          }}
          className={classes(
            'cursor-default truncate rounded-[6px] px-2 py-1 hover:bg-tint',
            i === chosen && 'bg-tint',
          )}
        >
          {option.label}
        </li>
      ))}
    </ul>
  );
}
