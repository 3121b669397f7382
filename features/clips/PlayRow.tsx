import { Pause, Play, Volume2, VolumeX } from 'lucide-react';
import { clockOf } from '@/core/clip/clock';
import { filmEnds } from '@/core/clip/cuts';
import { Button } from '../ui/Button';
import { ChipRadios } from '../ui/ChipRadios';
import { IconButton } from '../ui/IconButton';
import type { useFilm } from './useFilm';
import type { useSound } from './useSound';

const icon = { size: 16, strokeWidth: 1.75 };
const speeds = ['0.25', '0.5', '1', '2', '4'].map((value) => ({
  ...{ value, label: `${value}×`, called: `${value} times as fast` },
}));

interface Props {
  film: ReturnType<typeof useFilm>;
  times: readonly number[];
  /** How long what is kept lasts, seconds; null where all of it is. */
  kept: number | null;
  sound: ReturnType<typeof useSound>['control'];
}

/** Plays a clip, and says where it stands. */
export function PlayRow({ film, times, kept, sound }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-3 px-4 pb-2">
      <Button
        hint="Space"
        icon={film.playing ? <Pause {...icon} /> : <Play {...icon} />}
        onClick={film.toggle}
      >
        {film.playing ? 'Pause' : 'Play'}
      </Button>
      <p className="font-measure">
        {clockOf(times[film.picture] ?? 0)} of {clockOf(filmEnds(times))}
      </p>
      {kept !== null && (
        <p role="status" className="text-[13px] text-soft">
          kept <span className="font-measure">{clockOf(kept)}</span>
        </p>
      )}
      <ChipRadios
        label="Speed"
        value={String(film.speed)}
        options={speeds}
        onChange={(value) => film.setSpeed(Number(value))}
      />
      {sound && (
        <>
          <IconButton label="Sound" aria-pressed={sound.on} onClick={sound.toggle}>
            {sound.on ? <Volume2 {...icon} /> : <VolumeX {...icon} />}
          </IconButton>
          {sound.on && sound.isHidden && (
            <span className="text-[13px] text-soft">silent while something is hidden</span>
          )}
        </>
      )}
    </div>
  );
}
