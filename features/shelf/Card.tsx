import { useState, type KeyboardEvent } from 'react';
import { Video } from 'lucide-react';
import { clockOf } from '@/core/clip/clock';
import type { ShotSummary } from '@/core/contracts/shot';
import { mayMove, MovingPreview } from '../films/MovingPreview';
import { Thumbnail } from '../pictures/Thumbnail';
import { classes } from '../ui/classes';
import { formatTime } from '../ui/format';
import { useTagColour } from '../tags/tagStore';
import { Hits } from './Hits';
import { daysLeft, sayReason } from './sayFound';

export interface CardProps {
  chosen: string | null;
  /** Those that something is done with at once. */
  several: readonly string[];
  small: boolean;
  /** Days until what lies in the bin is deleted for good; null where that is never. */
  binDays: number | null;
  /** Puts a shot among the several or takes it out; with Shift all from the last one to it. */
  onTick: (id: string, range: boolean) => void;
  onChoose: (id: string) => void;
  onOpen: (shot: ShotSummary) => void;
  onLook: (shot: ShotSummary) => void;
  onKey: (event: KeyboardEvent, shot: ShotSummary) => void;
}

export function Card({ shot, ...props }: CardProps & { shot: ShotSummary }) {
  const { chosen, several, small, onTick, onChoose, onOpen, onLook, onKey } = props;
  const selected = shot.id === chosen;
  const ticked = several.includes(shot.id);
  const [moves, setMoves] = useState(false);
  const key = (event: KeyboardEvent) => {
    const held = event.ctrlKey || event.metaKey || event.shiftKey;
    if (event.key === 'Enter') onOpen(shot);
    else if (event.key === ' ' && held) onTick(shot.id, event.shiftKey);
    else if (event.key === ' ') onLook(shot);
    else return onKey(event, shot);
    event.preventDefault();
  };
  return (
    <div
      className="group relative"
      onPointerEnter={() => setMoves(shot.seconds !== undefined && mayMove())}
      onPointerLeave={() => setMoves(false)}
    >
      <button
        type="button"
        data-shot={shot.id}
        aria-pressed={selected}
        onClick={(event) => {
          if (event.ctrlKey || event.metaKey || event.shiftKey) onTick(shot.id, event.shiftKey);
          else onChoose(shot.id);
        }}
        onDoubleClick={() => onOpen(shot)}
        onKeyDown={key}
        className="block w-full rounded-[8px] p-1 text-left"
      >
        <span
          className={classes(
            'relative block overflow-hidden rounded-[7px] border bg-card',
            small ? 'h-[82px]' : 'h-[138px]',
            selected || ticked ? 'border-petrol ring-2 ring-petrol' : 'border-line',
          )}
        >
          <Thumbnail shot={shot} />
          {moves && shot.seconds !== undefined && (
            <MovingPreview
              id={shot.id}
              revision={shot.revision}
              seconds={shot.seconds}
              height={small ? 80 : 136}
            />
          )}
          <Hits shot={shot} />
          {shot.seconds !== undefined && (
            <span className="absolute right-1.5 bottom-1.5 flex items-center gap-1 rounded-[5px] bg-ink px-1.5 font-measure text-[13px] text-on-ink">
              <Video size={13} strokeWidth={2} aria-hidden />
              <span className="sr-only">Clip, </span>
              {clockOf(shot.seconds)}
            </span>
          )}
        </span>
        <span className={classes('mt-1 block truncate font-bold', small && 'text-[13px]')}>
          {shot.title}
        </span>
        <CardLine shot={shot} {...props} />
      </button>
      <label
        className={classes(
          'absolute top-2 left-2 grid size-7 place-items-center rounded-[6px] border border-edge bg-card',
          several.length === 0 &&
            'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 [@media(hover:none)]:opacity-100',
        )}
      >
        <span className="sr-only">Choose {shot.title} among several</span>
        <input
          type="checkbox"
          checked={ticked}
          onChange={(event) =>
            onTick(shot.id, event.nativeEvent instanceof MouseEvent && event.nativeEvent.shiftKey)
          }
          className="size-4 accent-petrol"
        />
      </label>
    </div>
  );
}

/** The time, and what matters here: why it was found, how long it stays, or its size. */
function CardLine({ shot, small, binDays }: CardProps & { shot: ShotSummary }) {
  const reason = shot.found && sayReason(shot.found);
  const left = daysLeft(shot.binnedAt, binDays);
  return (
    <span className="flex items-center gap-1.5 truncate text-[13px] text-soft">
      <span className="truncate">
        {formatTime(shot.takenAt)}
        {left !== null && ` · ${left}`}
        {left === null && reason && <span className="text-petrol"> · {reason}</span>}
        {left === null && !reason && !small && (
          <>
            {' · '}
            <span className="font-measure">
              {shot.width} × {shot.height}
            </span>
          </>
        )}
        {!small && !reason && shot.copies > 0 && (
          <span className="text-petrol"> kept {shot.copies}×</span>
        )}
      </span>
      {shot.tags.slice(0, 4).map((name) => (
        <TagDot key={name} name={name} />
      ))}
    </span>
  );
}

function TagDot({ name }: { name: string }) {
  const colour = useTagColour(name);
  return (
    <span
      role="img"
      aria-label={`Tag ${name}`}
      title={name}
      className="size-2.5 shrink-0 rounded-[3px] border border-edge"
      style={{ background: colour }}
    />
  );
}
