import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { followLink } from './navigate';
import { dismiss, useNotices, type Notice } from './noticeStore';

/** What just happened, at the lower left; read out as it comes. */
export function Notices() {
  const notices = useNotices((s) => s.notices);
  const rests = useRef(false);
  useEffect(() => {
    const timer = setInterval(() => {
      if (rests.current) return;
      for (const n of useNotices.getState().notices) {
        if (n.until !== null && n.until < Date.now()) dismiss(n.key);
      }
    }, 500);
    return () => clearInterval(timer);
  }, []);
  const newest = notices.findLast((n) => n.second?.hint);
  useAction('take.again', () => newest?.second?.act(), { enabled: newest !== undefined });
  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed bottom-10 left-4 z-30 flex w-[340px] flex-col gap-2"
      onPointerEnter={() => (rests.current = true)}
      onPointerLeave={() => (rests.current = false)}
    >
      {notices.map((notice) => (
        <Card key={notice.key} notice={notice} />
      ))}
    </div>
  );
}

function Card({ notice }: { notice: Notice }) {
  const again = useKeyOf('take.again');
  return (
    <div
      data-notice={notice.key}
      className={classes(
        'pointer-events-auto flex gap-3 rounded-[9px] border bg-card p-3 shadow-raised',
        notice.tone === 'bad' ? 'border-brick' : 'border-edge',
      )}
    >
      {notice.picture && <Picture notice={notice} />}
      <div className="min-w-0 grow">
        <p className={classes('font-bold break-words', notice.tone === 'bad' && 'text-brick')}>
          {notice.title}
        </p>
        {notice.lines?.map((line) => (
          <p key={line} className="text-[13px] break-words text-soft">
            {line}
          </p>
        ))}
        {notice.reason && (
          <details className="text-[13px]">
            <summary>The system’s own words</summary>
            <p className="font-measure break-words">{notice.reason}</p>
          </details>
        )}
        {(notice.action ?? notice.second) && (
          <div className="mt-2 flex flex-wrap gap-2">
            {notice.action && <Button onClick={notice.action.act}>{notice.action.label}</Button>}
            {notice.second && (
              <Button
                look="quiet"
                hint={notice.second.hint && keyLabel(again)}
                onClick={notice.second.act}
              >
                {notice.second.label}
              </Button>
            )}
          </div>
        )}
      </div>
      <IconButton label="Close" className="-mt-1 -mr-1" onClick={() => dismiss(notice.key)}>
        <X size={16} strokeWidth={1.75} />
      </IconButton>
    </div>
  );
}

function Picture({ notice }: { notice: Notice }) {
  const image = (
    <img
      src={notice.picture}
      alt=""
      className="h-14 w-20 rounded-[5px] border border-line object-cover"
    />
  );
  if (!notice.href) return image;
  return (
    <a
      href={notice.href}
      onClick={followLink}
      aria-label={`Mark: ${notice.title}`}
      className="shrink-0"
    >
      {image}
    </a>
  );
}
