import { useEffect } from 'react';
import type { Room } from '@/core/contracts/room';
import { api } from '../../api/client';
import { useAnswer } from '../../api/useAnswer';
import { readSettings } from '../../settings/settingsStore';
import { formatBytes, formatCount } from '../../ui/format';
import { Problem } from '../../ui/Problem';
import { kindLabels } from './labels';
import { Months } from './Months';
import { UnkeptRule } from './UnkeptRule';

/** What room Rezzik uses, what for, and what may go. */
export function RoomPage() {
  const { answer: room, problem } = useAnswer(api.room, 'room');
  useEffect(() => void readSettings(), []);
  return (
    <div className="flex max-w-3xl flex-col gap-4">
      <div>
        <h1 className="mb-1 font-name text-xl">Room</h1>
        <p className="text-soft">
          {room
            ? `${formatBytes(room.whole)} are used${room.free === null ? '' : `, ${formatBytes(room.free)} are free on this disk`}. The last thirty days took ${formatBytes(room.lately)}.`
            : 'Counting …'}
        </p>
      </div>
      {problem && <Problem>{problem}</Problem>}
      {room?.low && (
        <Problem>
          Room runs short. Empty the Bin, let go of what nobody kept, or move what is large: when
          the disk is full, nothing more can be taken.
        </Problem>
      )}
      {room && <Kinds room={room} />}
      {room && room.months.length > 0 && <Months months={room.months} />}
      <UnkeptRule />
    </div>
  );
}

function Kinds({ room }: { room: Room }) {
  const most = Math.max(1, ...room.kinds.map(({ bytes }) => bytes));
  return (
    <section aria-label="By kind" className="rounded-[9px] border border-line bg-card px-4 py-3">
      <h2 className="mb-2 font-name text-lg">By kind</h2>
      <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-4 gap-y-1.5">
        {room.kinds.map(({ kind, bytes }) => (
          <div key={kind} className="contents">
            <dt title={kindLabels[kind].note}>
              {kindLabels[kind].label}
              <span className="sr-only">: {kindLabels[kind].note}</span>
            </dt>
            <dd aria-hidden className="h-2.5 rounded-full bg-tint">
              <div
                className="h-full rounded-full bg-petrol"
                style={{ width: `${(100 * bytes) / most}%` }}
              />
            </dd>
            <dd className="text-right font-measure">{formatBytes(bytes)}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-2 text-[13px] text-soft">
        Besides, {formatCount(room.copies.count)} copies in folders,{' '}
        {formatBytes(room.copies.bytes)} when they were kept.
      </p>
    </section>
  );
}
