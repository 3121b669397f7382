import type { Guide } from '@/core/contracts/guide';
import { change, useGuide } from './guideStore';
import { useGuideShots } from './useNumbers';

type Rule = Guide['clips'];

const rules: Record<Rule, { label: string; note: string }> = {
  still: { label: 'first picture', note: '' },
  link: {
    label: 'first picture, with their link',
    note: 'It plays on this computer, and for others where Setup opens links to them.',
  },
  moving: {
    label: 'moving',
    note: 'They play in HTML and move in Markdown; the others show their first picture.',
  },
};

/** How clips among the steps are shown; nothing where there are none. */
export function ClipsChoice({
  className,
  onChoose,
}: {
  className: string;
  onChoose: (step: string) => void;
}) {
  const guide = useGuide((s) => s.open?.guide);
  const shots = useGuideShots();
  const steps = (guide?.items ?? []).flatMap((item) => (item.kind === 'step' ? [item] : []));
  const clips = steps.filter(({ shot }) => shots.get(shot)?.clip);
  if (!guide || clips.length === 0) return null;
  const { note } = rules[guide.clips];
  const unlinked =
    guide.clips === 'link' ? clips.filter(({ shot }) => !shots.get(shot)?.clip?.link) : [];
  return (
    <div className="mt-2">
      <label className="block">
        Clips
        <select
          className={className}
          value={guide.clips}
          onChange={(event) =>
            change((draft) => {
              draft.guide.clips = event.target.value as Rule;
            })
          }
        >
          {Object.entries(rules).map(([rule, { label }]) => (
            <option key={rule} value={rule}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {note && <p className="mt-1 text-[13px] text-soft">{note}</p>}
      {unlinked.length > 0 && (
        <div className="mt-1 text-[13px] text-soft">
          <p>Without a link that plays, made in the view of the clip, it is the picture alone:</p>
          <ul>
            {unlinked.map(({ id, heading, shot }) => (
              <li key={id}>
                <button
                  type="button"
                  onClick={() => onChoose(id)}
                  className="w-full truncate text-left text-petrol underline"
                >
                  {heading || shots.get(shot)?.name || 'Clip'}
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
