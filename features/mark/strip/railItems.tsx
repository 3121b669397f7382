import type { Folding } from '../../ui/FoldedRow';
import { Button } from '../../ui/Button';
import { NumberInput } from '../../ui/NumberInput';
import { setRail, toggleRail } from '../fit/rail';
import { useTool } from '../session/tool';
import { Choice } from './controls';

const forms = [
  ['straight', 'Straight'],
  ['arc', 'Arc'],
] as const;
const FIRST_RADIUS = 300;

/** The rail that lies on the picture: its angle, straight or an arc, and away with it. */
export function useRailItems(): Folding[] {
  const rail = useTool((s) => s.rail);
  if (!rail) return [];
  return [
    {
      key: 'rail angle',
      node: (
        <>
          <NumberInput
            label="Rail angle"
            value={Math.round(rail.angle * 10) / 10}
            min={-360}
            max={360}
            onCommit={(angle) => setRail({ angle: ((angle % 360) + 360) % 360 })}
          />
          <span className="ml-1 text-[13px] text-soft">° clockwise</span>
        </>
      ),
    },
    {
      key: 'rail form',
      node: (
        <Choice
          label="Rail"
          value={rail.radius === null ? 'straight' : 'arc'}
          options={forms}
          onChange={(form) => setRail({ radius: form === 'arc' ? FIRST_RADIUS : null })}
        />
      ),
    },
    ...(rail.radius === null
      ? []
      : [
          {
            key: 'rail radius',
            node: (
              <NumberInput
                label="Radius"
                value={rail.radius}
                min={20}
                max={20_000}
                onCommit={(radius) => setRail({ radius })}
              />
            ),
          },
        ]),
    {
      key: 'rail away',
      node: (
        <Button look="quiet" onClick={toggleRail}>
          Take the rail away
        </Button>
      ),
    },
  ];
}
