import { adjustments, amountOf, type AdjustmentName } from '@/core/finish/adjust/adjust';
import { Button } from '../../ui/Button';
import type { Folding } from '../../ui/FoldedRow';
import { Range } from '../../ui/Range';
import { setAdjusted, setAmount, unadjust } from '../fit/adjusting';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { update } from '../session/session';
import { fitForPrinting } from '../fit/printing';
import { Choice, Press } from './controls';

/** Those that are wanted most first: what does not fit is folded away. */
const offered: readonly AdjustmentName[] = [
  ...(['brightness', 'contrast', 'grey', 'inverted'] as const),
  ...(['sharpened', 'saturation'] as const),
];

/** Brightness, contrast and the like of the whole picture: all of it can be changed back. */
export function useAdjustItems(): Folding[] {
  const adjust = useDocument((s) => s.history.document.finish?.adjust);
  const before = useLive((s) => s.before);
  const amount = (name: AdjustmentName): Folding => {
    const { label, most, none, isSwitch } = adjustments[name];
    const value = amountOf(adjust, name);
    const node = isSwitch ? (
      <Press
        label={label}
        on={value !== none}
        onChange={(on) => setAmount(name, on ? most : none)}
      />
    ) : (
      <Range
        label={label}
        value={value}
        min={0}
        // None in the middle where it can go both ways, and yet what a program set can be seen.
        max={Math.max(none === 0 ? most : 2 * none, value)}
        unit=" %"
        onChange={(next) => setAmount(name, next)}
      />
    );
    return { key: `adjust ${name}`, node };
  };
  const whenAny: Folding[] = [
    {
      key: 'adjust on',
      node: (
        <Choice
          label="On"
          value={adjust?.on ?? 'picture'}
          options={[
            ['picture', 'the picture'],
            ['all', 'picture and marks'],
          ]}
          onChange={setAdjusted}
        />
      ),
    },
    {
      key: 'adjust before',
      node: <Press label="Before" on={before} onChange={(on) => update({ before: on })} />,
    },
    {
      key: 'adjust none',
      node: (
        <Button look="quiet" onClick={unadjust}>
          As it was
        </Button>
      ),
    },
    {
      key: 'adjust hint',
      node: <span className="text-soft">Hold Space to see it as it was before.</span>,
    },
  ];
  const printing: Folding = {
    key: 'black and white',
    node: (
      <Button
        title="All in grey; marks whose colours would look alike get dashes or letters"
        onClick={fitForPrinting}
      >
        For black and white
      </Button>
    ),
  };
  return [...offered.map(amount), printing, ...(adjust ? whenAny : [])];
}
