import { Download, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { api, thumbnailUrl } from '../api/client';
import { heardCount } from '../names/dayCount';
import { dropFromOutbox, fromOutbox, useOutbox, type Waiting } from '../outbox/outbox';
import { saveBlob } from '../pictures/saveBlob';
import { followLink } from '../thread/navigate';
import { IconButton } from '../ui/IconButton';
import { LinkItem, Row } from '../ui/Row';

const SHOWN = 8;

/** The newest shots, with those the server does not have yet in front. */
export function LastTaken() {
  const { waiting, storedCount, unreachable } = useOutbox();
  const [shots, setShots] = useState<ShotSummary[]>([]);
  useEffect(() => {
    let current = true;
    void api
      .shots({ limit: SHOWN, byHand: true })
      .then((page) => {
        heardCount(page.today);
        if (current) setShots(page.shots);
      })
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, [storedCount]);
  if (shots.length === 0 && waiting.length === 0) {
    return (
      <p className="mt-3 text-soft">
        Nothing taken yet. Press Enter, or the yellow button, and the picture opens for marking.
      </p>
    );
  }
  return (
    <section
      aria-label="Last taken"
      className="mt-3 flex shrink-0 items-center gap-3 overflow-hidden"
    >
      <h2 className="w-14 shrink-0 font-bold text-soft">Last taken</h2>
      {unreachable && (
        <p role="status" className="text-[13px] text-brick">
          The server does not answer. What you take waits here and is sent again.
        </p>
      )}
      <Row label="Last taken" className="flex gap-2 overflow-hidden p-1">
        {waiting.map((entry) => (
          <WaitingItem key={entry.id} entry={entry} />
        ))}
        {shots.map((shot) => (
          <LinkItem key={shot.id}>
            <a
              href={`/shots/${shot.id}`}
              onClick={followLink}
              title={shot.title}
              aria-label={shot.title}
              className="block h-[62px] w-[100px] overflow-hidden rounded-[5px] border border-line bg-card"
            >
              <img
                src={thumbnailUrl(shot)}
                alt=""
                className="size-full object-cover"
                loading="lazy"
              />
            </a>
          </LinkItem>
        ))}
      </Row>
    </section>
  );
}

/** A take that is safe in this browser but not stored; a refused one can be saved or dropped. */
function WaitingItem({ entry }: { entry: Waiting }) {
  const save = async () => {
    const held = await fromOutbox(entry.id);
    if (held) saveBlob(held.picture, held.provenance.fileName ?? `${entry.title}.png`);
  };
  return (
    <div className="flex h-[62px] max-w-[240px] items-center gap-1 rounded-[5px] border border-dashed border-edge bg-card px-2">
      <span className="min-w-0 text-[13px]">
        <span className="block truncate font-bold">{entry.title}</span>
        <span className="block truncate text-brick" title={entry.refused}>
          {entry.refused ?? 'not stored yet'}
        </span>
      </span>
      {entry.refused && (
        <>
          <IconButton label={`Save the file of ${entry.title}`} onClick={() => void save()}>
            <Download size={16} strokeWidth={1.75} />
          </IconButton>
          <IconButton label={`Drop ${entry.title}`} onClick={() => void dropFromOutbox(entry.id)}>
            <Trash2 size={16} strokeWidth={1.75} />
          </IconButton>
        </>
      )}
    </div>
  );
}
