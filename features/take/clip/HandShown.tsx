import { pressedNames, type PressedName, type Way } from '@/core/contracts/way';
import { Toggle } from '../../ui/Toggle';
import { sources } from '../sources/list';

const labels: Record<PressedName, string> = {
  clicks: 'Clicks as rings',
  keys: 'Keys pressed',
};
const notes: Partial<Record<PressedName, string>> = {
  keys: 'What is typed can be read. Fields for passwords are left out where programs name them.',
};

interface Props extends Pick<Way, 'source' | 'pressed'> {
  onChange: (change: Pick<Way, 'pressed'>) => void;
}

/** What of a hand's doing is shown on a clip, where the source can tell. */
export function HandShown({ source, pressed, onChange }: Props) {
  if (!sources[source].can.pressed) return null;
  return pressedNames.map((name) => (
    <Toggle
      key={name}
      label={labels[name]}
      note={pressed.includes(name) ? notes[name] : undefined}
      checked={pressed.includes(name)}
      onChange={(on) =>
        onChange({
          pressed: pressedNames.filter((one) => (one === name ? on : pressed.includes(one))),
        })
      }
    />
  ));
}
