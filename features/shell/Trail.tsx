import { GalleryThumbnails, History, PencilLine, RotateCcw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { tryAgain } from '../take/finish';
import { followTrail, useTrail, type Entry, type Outcome } from '../trail/trail';
import { toggleTrailRow, useTrailRow } from '../trail/TrailRow';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { formatMoment } from '../ui/format';
import { IconButton } from '../ui/IconButton';
import { Modal } from '../ui/Modal';
import { navigate, usePath } from '../thread/navigate';

/** The last takes and what became of each, one key away. */
export function TrailButton() {
  const [open, setOpen] = useState(false);
  const key = useKeyOf('trail.show');
  const failed = useTrail((s) => s.entries.some(hasFailed));
  const inMark = /^\/shots\/[^/]+$/.test(usePath());
  const row = useTrailRow((s) => s.open);
  useEffect(() => followTrail(), []);
  useAction('trail.show', () => setOpen(true));
  return (
    <>
      {inMark && (
        <IconButton
          label={row ? 'Fold the row of takes' : 'Show the takes as a row'}
          aria-pressed={row}
          onClick={toggleTrailRow}
        >
          <GalleryThumbnails size={18} strokeWidth={1.75} />
        </IconButton>
      )}
      <Button
        look="quiet"
        className="shrink-0"
        icon={<History size={18} strokeWidth={1.75} />}
        hint={keyLabel(key)}
        onClick={() => setOpen(true)}
      >
        Trail
        {failed && <span className="size-2 rounded-full bg-brick" title="Something failed" />}
      </Button>
      <Trail open={open} onClose={() => setOpen(false)} />
    </>
  );
}

const hasFailed = ({ gone, outcomes }: Entry): boolean =>
  !gone && outcomes.some(({ state }) => state === 'failed');

function Trail({ open, onClose }: { open: boolean; onClose: () => void }) {
  const entries = useTrail((s) => s.entries);
  return (
    <Modal
      open={open}
      title="Trail"
      description="The last takes, and what became of each."
      onClose={onClose}
    >
      {entries.length === 0 && <p className="text-soft">Nothing taken yet in this browser.</p>}
      <ol className="flex flex-col">
        {entries.map((entry) => (
          <Row key={entry.id} entry={entry} onClose={onClose} />
        ))}
      </ol>
    </Modal>
  );
}

function Row({ entry, onClose }: { entry: Entry; onClose: () => void }) {
  const { id, title, at, gone, outcomes } = entry;
  return (
    <li className="flex gap-3 border-b border-line py-2 last:border-b-0">
      <img
        src={`/api/shots/${id}/thumbnail?revision=1`}
        alt=""
        loading="lazy"
        className="h-[46px] w-[74px] shrink-0 rounded-[5px] border border-line bg-desk object-cover"
      />
      <div className="min-w-0 grow">
        <p className="truncate font-bold" title={title}>
          {title}
        </p>
        <p className="text-[13px] text-soft">
          {formatMoment(at)}
          {gone ? ' · thrown away' : ' · on the Shelf'}
        </p>
        {outcomes.map((outcome) => (
          <Line key={outcome.key} shot={id} gone={gone} outcome={outcome} />
        ))}
      </div>
      {!gone && (
        <Button
          icon={<PencilLine size={16} strokeWidth={1.75} />}
          className="self-start"
          onClick={() => {
            onClose();
            navigate(`/shots/${id}`);
          }}
        >
          Mark
        </Button>
      )}
    </li>
  );
}

function Line({ shot, gone, outcome }: { shot: string; gone: boolean; outcome: Outcome }) {
  const { state, said, step } = outcome;
  return (
    <div className="flex items-center gap-2">
      <p
        className={classes(
          'min-w-0 grow text-[13px] break-words',
          state === 'failed' ? 'text-brick' : 'text-ink',
        )}
      >
        {state === 'going' ? `${said} …` : said}
      </p>
      {state === 'failed' && step && !gone && (
        <Button
          look="quiet"
          icon={<RotateCcw size={15} strokeWidth={1.75} />}
          onClick={() => void tryAgain(shot, step)}
        >
          Try again
        </Button>
      )}
    </div>
  );
}
