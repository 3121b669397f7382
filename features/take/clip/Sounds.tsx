import { soundNames, type SoundName, type Way } from '@/core/contracts/way';
import { Toggle } from '../../ui/Toggle';
import { sources } from '../sources/list';

const labels: Record<SoundName, string> = {
  shared: 'Sound of what is shared',
  microphone: 'Microphone',
};

interface Props extends Pick<Way, 'source' | 'sounds'> {
  onChange: (change: Pick<Way, 'sounds'>) => void;
}

/** What is heard with the pictures of a clip, as far as the source has it. */
export function Sounds({ source, sounds, onChange }: Props) {
  const { can } = sources[source];
  const offered = can.sounds;
  if (can.clip !== true && !offered) return null;
  if (!offered)
    return <p className="text-[13px] text-soft">Without sound: Shared screen has it.</p>;
  return soundNames
    .filter((name) => offered[name] !== undefined)
    .map((name) => {
      const isOn = sounds.includes(name);
      const why = offered[name];
      return (
        <Toggle
          key={name}
          label={labels[name]}
          note={isOn && typeof why === 'string' ? why : undefined}
          checked={isOn}
          onChange={(on) =>
            onChange({
              sounds: soundNames.filter((one) => (one === name ? on : sounds.includes(one))),
            })
          }
        />
      );
    });
}
