import { changeSettings, useSettings } from '../settings/settingsStore';
import { Radio, Radios } from '../ui/Radios';
import { chosenLook, classes } from '../ui/classes';
import { Calendar } from './days/Calendar';
import { ask } from './search/asked';

/** How the shots lie: size of the cards, and a jump to a day. */
export function ListBar() {
  const small = useSettings((s) => s.settings.smallCards);
  return (
    <div className="flex items-center gap-3 border-t border-line bg-paper px-4 py-1">
      <Radios
        label="Cards"
        value={small ? 'small' : 'large'}
        onChange={(next: 'small' | 'large') => changeSettings({ smallCards: next === 'small' })}
        className="flex gap-1"
      >
        {(['large', 'small'] as const).map((size) => (
          <Radio
            key={size}
            value={size}
            className={classes(
              'h-7 rounded-[6px] border px-2.5 text-[13px]',
              chosenLook((size === 'small') === small),
            )}
          >
            {size === 'small' ? 'Small cards' : 'Large cards'}
          </Radio>
        ))}
      </Radios>
      <span className="ml-auto">
        <Calendar onDay={(day) => ask({ text: `on:${day}`, order: 'day' }, 'chosen')} />
      </span>
    </div>
  );
}
