import { CircleStop, RotateCw, Trash2 } from 'lucide-react';
import type { Sending } from '@/core/contracts/remote';
import { api } from '../../api/client';
import { formatBytes, formatMoment } from '../../ui/format';
import { IconButton } from '../../ui/IconButton';
import type { Act } from '../../ui/act';

/** Copies for remote folders that could not be sent yet, and why. */
export function Waiting({ sendings, act }: { sendings: readonly Sending[]; act: Act }) {
  if (sendings.length === 0) return null;
  return (
    <section aria-label="Waiting to be sent">
      <h2 className="mb-2 font-name text-lg">Waiting to be sent</h2>
      <ul className="flex flex-col gap-2">
        {sendings.map((sending) => (
          <li
            key={sending.id}
            className="flex items-center gap-3 rounded-[9px] border border-line bg-card p-3"
          >
            <div className="min-w-0 grow">
              <p className="font-bold">
                {sending.name}{' '}
                <span className="font-normal text-soft">to {sending.remoteName}</span>
              </p>
              <p className="text-brick">{sending.problem}</p>
              <p className="text-[13px] text-soft">
                {formatBytes(sending.size)}, tried {sending.tries}×,{' '}
                {sending.state === 'stopped'
                  ? 'stopped; it waits for you'
                  : `next ${formatMoment(sending.nextTry)}`}
              </p>
            </div>
            <IconButton label="Send now" onClick={() => void act(api.sendAgain(sending.id))}>
              <RotateCw size={18} strokeWidth={1.75} />
            </IconButton>
            {sending.state === 'waiting' && (
              <IconButton label="Stop trying" onClick={() => void act(api.stopSending(sending.id))}>
                <CircleStop size={18} strokeWidth={1.75} />
              </IconButton>
            )}
            <IconButton label="Give it up" onClick={() => void act(api.dropSending(sending.id))}>
              <Trash2 size={18} strokeWidth={1.75} />
            </IconButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
