import { Info, X } from 'lucide-react';
import { useEffect, useRef, type MouseEvent } from 'react';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { TagButton } from '../tags/TagButton';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { Pop } from '../ui/Pop';
import { followLink, usePath } from '../thread/navigate';
import { bringForward, dismiss, dropOld, useNotices, type Notice } from '../notices/noticeStore';
import { RecordingSign } from '../take/clip/Recording';
import { HoldingSign } from '../take/back/HoldingSign';
import { STATUS_SLOT } from '../thread/statusSlot';
import { TrailButton } from './Trail';

/**
 * The foot of every view: what the view says of itself, what just happened, and the way to the
 * trail. It has a place of its own, so that no answer ever lies on something that can be pressed.
 */
export function AnswerLine() {
  const notices = useNotices((s) => s.notices);
  const rests = useRef(false);
  const path = usePath();
  useEffect(() => {
    const timer = setInterval(() => {
      if (!rests.current) dropOld(Date.now());
    }, 500);
    return () => clearInterval(timer);
  }, []);
  const again = notices.findLast((n) => n.second?.hint);
  useAction('take.again', () => again?.second?.act(), { enabled: again !== undefined });
  const shown = notices.at(-1);
  return (
    <footer className="flex h-[46px] shrink-0 items-center gap-4 border-t border-line bg-paper px-3.5 print:hidden">
      <div id={STATUS_SLOT} className="flex shrink-0 items-center gap-5 empty:hidden" />
      <div
        role="status"
        aria-live="polite"
        className="flex min-w-0 grow items-center gap-3"
        onPointerEnter={() => (rests.current = true)}
        onPointerLeave={() => (rests.current = false)}
        onFocus={() => (rests.current = true)}
        onBlur={() => (rests.current = false)}
      >
        {shown && <Answer key={shown.key} notice={shown} others={notices.length - 1} />}
      </div>
      {!path.startsWith('/take') && <RecordingSign />}
      <HoldingSign />
      <TrailButton />
    </footer>
  );
}

const SHOT = /^\/shots\/([0-9a-f-]{36})$/i;

/** A click this soon after an answer appeared was meant for what was there before. */
const TOO_SOON = 500;

function Answer({ notice, others }: { notice: Notice; others: number }) {
  const again = useKeyOf('take.again');
  const meant = (act: () => void) => (event: MouseEvent) => {
    if (event.detail === 0 || Date.now() - notice.born > TOO_SOON) act();
  };
  const { title, lines = [], reason, action, second, tone } = notice;
  const bad = tone === 'bad';
  const shot = bad ? undefined : SHOT.exec(notice.href ?? '')?.[1];
  return (
    <div data-notice={notice.key} className="flex min-w-0 grow items-center gap-3">
      {notice.picture && <Picture notice={notice} />}
      <div className="min-w-0 leading-[18px]">
        <p className={classes('truncate font-bold', bad && 'text-brick')} title={title}>
          {title}
        </p>
        {lines.length > 0 && (
          <p className="truncate text-[13px] text-soft" title={lines.join('\n')}>
            {lines.map((line, i) => (
              <span key={line}>
                {i > 0 && ' · '}
                <span>{line}</span>
              </span>
            ))}
          </p>
        )}
      </div>
      {(reason ?? (bad || lines.length > 2)) && <More notice={notice} />}
      {shot && <TagButton shot={shot} side="top" />}
      {action && (
        <Button className="shrink-0" onClick={meant(action.act)}>
          {action.label}
        </Button>
      )}
      {second && (
        <Button
          look="quiet"
          className="shrink-0"
          hint={second.hint && keyLabel(again)}
          onClick={meant(second.act)}
        >
          {second.label}
        </Button>
      )}
      {others > 0 && (
        <IconButton label={`Earlier answers: ${others}`} onClick={bringForward}>
          <span className="font-measure text-[13px]">+{others}</span>
        </IconButton>
      )}
      <IconButton label="Close" onClick={() => dismiss(notice.key)}>
        <X size={16} strokeWidth={1.75} />
      </IconButton>
    </div>
  );
}

/** All of an answer, with the system's own words where there are some. */
function More({ notice }: { notice: Notice }) {
  const button = (
    <IconButton label="All of it">
      <Info size={16} strokeWidth={1.75} />
    </IconButton>
  );
  return (
    <Pop trigger={button} label="All of it" side="top" className="max-w-[420px]">
      <p className="font-bold break-words">{notice.title}</p>
      {notice.lines?.map((line) => (
        <p key={line} className="break-words text-soft">
          {line}
        </p>
      ))}
      {notice.reason && (
        <p className="mt-2 text-[13px] break-words">
          The system’s own words: <span className="font-measure">{notice.reason}</span>
        </p>
      )}
    </Pop>
  );
}

function Picture({ notice }: { notice: Notice }) {
  const image = (
    <img
      src={notice.picture}
      alt=""
      className="h-9 w-[60px] rounded-[5px] border border-line object-cover"
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
