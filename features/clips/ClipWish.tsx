import type { Clip } from '@/core/contracts/clip';
import {
  clipFormatNames,
  clipFormats,
  isFilm,
  soundRules,
  type ClipFormat,
  type SoundRule,
} from '@/core/contracts/clipCopy';
import { hiddenStretches } from '@/core/document/silent';
import { writtenSize } from '@/core/clip/size';
import type { Answer } from '../api/useAnswer';
import { ChipRadios } from '../ui/ChipRadios';
import { formatBytes } from '../ui/format';
import { NumberInput } from '../ui/NumberInput';

/** How a clip is to be written; 0 is any. */
export interface Wish {
  format: ClipFormat;
  percent: number;
  rate: number;
  /** MB. */
  most: number;
  sound: SoundRule;
  /** Of a film: colours as fine as brightness. */
  fine: boolean;
}

interface Props {
  clip: Clip;
  wish: Wish;
  set: (change: Partial<Wish>) => void;
  /** About how many bytes it will have. */
  size: Answer<number>;
}

const formats = clipFormatNames.map((value) => ({ value, label: clipFormats[value].label }));

/** In which form a clip is kept, and about how large that will be. */
export function ClipWish({ clip, wish, set, size }: Props) {
  const { format, percent, rate, most, sound, fine } = wish;
  const hasFine = clip.fineColours && isFilm(format);
  const { width, height } = writtenSize(clip.leaves, percent, isFilm(format));
  return (
    <>
      <ChipRadios
        words
        label="As"
        value={format}
        options={formats}
        onChange={(to) => set({ format: to })}
      />
      {/* Room for what is told later: nothing moves away from under a hand. */}
      <p className="min-h-10 text-[13px] text-soft">
        {hasFine && fine ? FINE : clipFormats[format].note} · {width} × {height} px
        {size.answer !== null && ` · about ${formatBytes(size.answer)}`}
        {size.asking && ' · …'}
      </p>
      {hasFine && <ColoursOfIt fine={fine} onChange={(to) => set({ fine: to })} />}
      <NumberInput
        label="Size, percent"
        value={percent}
        min={5}
        max={100}
        onCommit={(to) => set({ percent: to })}
      />
      <NumberInput
        label="Pictures a second"
        value={rate}
        min={0}
        max={60}
        empty
        onCommit={(to) => set({ rate: to })}
      />
      {clip.sound && isFilm(format) && (
        <SoundOfIt {...{ clip, sound }} onChange={(to) => set({ sound: to })} />
      )}
      <NumberInput
        label="At most, MB"
        value={most}
        min={0}
        max={10_000}
        empty
        onCommit={(to) => set({ most: to })}
      />
    </>
  );
}

const FINE = 'fine colours, not in every player';
const colours = [
  { value: 'usual', label: 'Usual' },
  { value: 'fine', label: 'As recorded' },
];

interface ColoursProps {
  fine: boolean;
  onChange: (fine: boolean) => void;
}

/** A film whose colours are finer than most players know may keep them. */
const ColoursOfIt = ({ fine, onChange }: ColoursProps) => (
  <div className="flex flex-wrap items-center gap-2">
    <span>Colours</span>
    <ChipRadios
      words
      label="Colours"
      value={fine ? 'fine' : 'usual'}
      options={colours}
      onChange={(to) => onChange(to === 'fine')}
    />
  </div>
);

const soundLabels: Record<SoundRule, string> = {
  all: 'Whole',
  unhidden: 'Not under Hide',
  none: 'None',
};

interface SoundProps {
  clip: Clip;
  sound: SoundRule;
  onChange: (sound: SoundRule) => void;
}

/** How much of its sound goes with it. */
function SoundOfIt({ clip, sound, onChange }: SoundProps) {
  const hidesAny = hiddenStretches(clip.document, clip.times.length).length > 0;
  const options = soundRules
    .filter((rule) => hidesAny || rule !== 'all')
    .map((value) => ({
      ...{ value, label: hidesAny || value === 'none' ? soundLabels[value] : 'With it' },
    }));
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span>Sound</span>
      <ChipRadios words label="Sound" value={sound} options={options} onChange={onChange} />
    </div>
  );
}
