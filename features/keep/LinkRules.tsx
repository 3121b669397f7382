import { NumberInput } from '../ui/NumberInput';
import type { Places } from './chosenPlaces';

interface Props {
  places: Pick<Places, 'linkDays' | 'linkViews'>;
  set: (change: Partial<Pick<Places, 'linkDays' | 'linkViews'>>) => void;
}

/** When a new link ends. */
export function LinkRules({ places, set }: Props) {
  return (
    <>
      <select
        aria-label="How long the link lasts"
        value={places.linkDays ?? 'never'}
        onChange={(event) =>
          set({ linkDays: event.target.value === 'never' ? null : Number(event.target.value) })
        }
        className="mt-1 h-8 w-full rounded-[6px] border border-edge bg-card px-2"
      >
        <option value={1}>ends after a day</option>
        <option value={7}>ends after a week</option>
        <option value={30}>ends after 30 days</option>
        <option value="never">does not end by itself</option>
      </select>
      <div className="my-1">
        <NumberInput
          label="Ends after so many views"
          empty
          value={places.linkViews ?? 0}
          min={0}
          max={1_000_000}
          onCommit={(views) => set({ linkViews: views >= 1 ? Math.round(views) : null })}
        />
      </div>
    </>
  );
}
