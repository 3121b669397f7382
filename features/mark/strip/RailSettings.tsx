import { Button } from '../../ui/Button';
import { NumberInput } from '../../ui/NumberInput';
import { setRail, toggleRail } from '../rail';
import { useSession } from '../session';
import { Choice } from './controls';

const forms = [
  ['straight', 'Straight'],
  ['arc', 'Arc'],
] as const;
const FIRST_RADIUS = 300;

/** The rail that lies on the picture: its angle, straight or an arc, and away with it. */
export function RailSettings() {
  const rail = useSession((s) => s.rail);
  if (!rail) return null;
  return (
    <div role="group" aria-label="Rail" className="flex items-center gap-3">
      <NumberInput
        label="Rail angle"
        value={Math.round(rail.angle * 10) / 10}
        min={-360}
        max={360}
        onCommit={(angle) => setRail({ angle: ((angle % 360) + 360) % 360 })}
      />
      <Choice
        label="Rail"
        value={rail.radius === null ? 'straight' : 'arc'}
        options={forms}
        onChange={(form) => setRail({ radius: form === 'arc' ? FIRST_RADIUS : null })}
      />
      {rail.radius !== null && (
        <NumberInput
          label="Radius"
          value={rail.radius}
          min={20}
          max={20_000}
          onCommit={(radius) => setRail({ radius })}
        />
      )}
      <Button look="quiet" onClick={toggleRail}>
        Take the rail away
      </Button>
    </div>
  );
}
