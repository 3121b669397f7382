import { changeSettings, useSettings } from '../../settings/settingsStore';
import { NumberInput } from '../../ui/NumberInput';

/** From which size on words are taken for readable. */
export function Letters() {
  const least = useSettings((s) => s.settings.readableFrom);
  return (
    <section aria-label="Small words">
      <h2 className="mb-2 font-name text-lg">Small words</h2>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <NumberInput
          label="Readable from this height of a small x on, pixels"
          value={least}
          min={3}
          max={30}
          onCommit={(readableFrom) => changeSettings({ readableFrom })}
        />
      </div>
    </section>
  );
}
