import {
  ArrowDown,
  ArrowUp,
  CopyPlus,
  Eye,
  EyeOff,
  Lock,
  LockOpen,
  PencilLine,
  Trash2,
} from 'lucide-react';
import { memo, useState, type KeyboardEvent } from 'react';
import { colourName } from '@/core/colour/markColours';
import type { Point } from '@/core/geometry/point';
import { kindOf, markBounds, wordsOf, type Mark } from '@/core/marks/registry';
import { isIn } from '@/core/values/stretch';
import { giveKeysBack } from '../../keys/focus';
import { Button } from '../../ui/Button';
import { classes } from '../../ui/classes';
import { IconButton } from '../../ui/IconButton';
import { Modal } from '../../ui/Modal';
import { Item, Row } from '../../ui/Row';
import { NumberInput } from '../../ui/NumberInput';
import { deleteSelected, setNumber, setOnMark } from '../actions/change';
import { duplicateSelected } from '../actions/make';
import { shiftInOrder } from '../actions/order';
import { select } from '../session/select';
import { beginWords } from '../actions/words';
import { useDocument } from '../session/document';
import type { Moment } from '../session/moment';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { session } from '../session/session';
import { KindIcon } from '../session/KindIcon';

interface RowProps {
  stored: Mark;
  /** Its place among all. */
  index: number;
  count: number;
  /** Where it stands in the list, px. */
  top: number;
  /** Told of the row's element, whose height counts. */
  measure: (row: HTMLElement | null) => void;
  /** The row that the Tab key comes to; the arrow keys go to the others. */
  isStop: boolean;
  onStep: (event: KeyboardEvent, id: string) => void;
}

/** Drawn anew only when its own mark changes: a shot may have thousands. */
export const MarkRow = memo(function MarkRow(props: RowProps) {
  const { stored, index, count, top, measure, isStop, onStep } = props;
  const mark = useLive((s) => s.live.find((m) => m.id === stored.id)) ?? stored;
  const selected = useTool((s) => s.selection.includes(mark.id));
  const only = useTool((s) => s.selection.length === 1) && selected;
  const elsewhen = useDocument((s) => elsewhenOf(mark, s.moment));
  const [asking, setAsking] = useState(false);
  const kind = kindOf(mark);
  return (
    <li
      ref={measure}
      data-index={index}
      aria-posinset={index + 1}
      aria-setsize={count}
      className={classes(
        'absolute inset-x-0 top-0 border-b border-line',
        index === count - 1 && 'border-b-transparent',
        selected && 'bg-tint',
      )}
      style={{ transform: `translateY(${top}px)` }}
    >
      <div className="flex items-center gap-1 pr-1">
        <button
          type="button"
          data-mark={mark.id}
          data-row
          tabIndex={isStop ? 0 : -1}
          aria-pressed={selected}
          onClick={() => select([mark.id])}
          onKeyDown={(event) => onStep(event, stored.id)}
          className="flex min-h-8 min-w-0 grow items-center gap-2 px-2 text-left -outline-offset-2"
        >
          <span
            aria-hidden
            className="h-5 w-1.5 shrink-0 rounded-full border border-edge"
            style={{ background: 'colour' in mark ? mark.colour : undefined }}
          />
          <KindIcon path={kind.iconOf?.(mark) ?? kind.icon} size={16} className="shrink-0" />
          <span
            className={classes(
              'shrink-0 font-bold',
              mark.off && 'text-faint line-through',
              elsewhen && 'text-faint',
            )}
          >
            {mark.name ?? kind.label}
          </span>
          <span className="truncate text-[13px] text-soft">{elsewhen ?? kind.describe(mark)}</span>
          <span className="sr-only">{spoken(mark)}</span>
          {mark.off && <span className="sr-only">switched off</span>}
          {mark.locked && <span className="sr-only">locked</span>}
        </button>
        <IconButton
          label={mark.off ? 'Switch on' : 'Switch off'}
          tabIndex={isStop ? 0 : -1}
          className="!size-7"
          onClick={() => {
            if (mark.off || kind.group !== 'Hide') {
              setOnMark(mark.id, { off: mark.off ? undefined : true });
            } else setAsking(true);
          }}
        >
          {mark.off ? (
            <EyeOff size={16} strokeWidth={1.75} />
          ) : (
            <Eye size={16} strokeWidth={1.75} />
          )}
        </IconButton>
      </div>
      {only && <Details mark={mark} />}
      <UncoverQuestion open={asking} mark={mark} onClose={() => setAsking(false)} />
    </li>
  );
});

/** Of a clip, that a mark is not seen on the picture in hand; null where it is. */
function elsewhenOf({ time }: Mark, moment: Moment | null): string | null {
  if (!time || !moment || isIn(time, moment.picture)) return null;
  return moment.picture < time.from ? 'comes later' : 'is over';
}

/** Where it is and what colour it has: “from 120, 80 to 300, 200, vermillion”. */
function spoken(mark: Mark): string {
  const at = ({ x, y }: Point) => `${Math.round(x)}, ${Math.round(y)}`;
  const { shaper } = session();
  const place =
    'from' in mark && 'to' in mark
      ? `from ${at(mark.from)} to ${at(mark.to)}`
      : `at ${at(markBounds(mark, { shaper }))}`;
  return 'colour' in mark ? `${place}, ${colourName(mark.colour).toLowerCase()}` : place;
}

interface QuestionProps {
  open: boolean;
  mark: Mark;
  onClose: () => void;
}

/** Asked before what is hidden can be seen by others. */
function UncoverQuestion({ open, mark, onClose }: QuestionProps) {
  const off = (uncovered: boolean) => {
    setOnMark(mark.id, { off: true, uncovered: uncovered || undefined });
    onClose();
  };
  return (
    <Modal
      open={open}
      title={`Switch ${kindOf(mark).label} off?`}
      description="You will see what is under it. In copies, the clipboard and everything else that leaves Rezzik it can stay hidden."
      onClose={onClose}
    >
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={onClose}>Leave it on</Button>
        <Button onClick={() => off(true)}>Show it everywhere</Button>
        <Button look="next" onClick={() => off(false)}>
          Show it only here
        </Button>
      </div>
    </Modal>
  );
}

/** What can be done with the one selected mark. */
function Details({ mark }: { mark: Mark }) {
  const shaper = useDocument((s) => s.shaper);
  const [naming, setNaming] = useState(false);
  const icon = { size: 16, strokeWidth: 1.75 };
  return (
    <div className="px-2 pb-2">
      <Row label="With this mark" className="flex flex-wrap">
        <Item>
          <IconButton label="Back" hint="[" onClick={() => shiftInOrder(mark.id, -1)}>
            <ArrowUp {...icon} />
          </IconButton>
        </Item>
        <Item>
          <IconButton label="Forward" hint="]" onClick={() => shiftInOrder(mark.id, 1)}>
            <ArrowDown {...icon} />
          </IconButton>
        </Item>
        <Item>
          <IconButton label="Duplicate" onClick={duplicateSelected}>
            <CopyPlus {...icon} />
          </IconButton>
        </Item>
        <Item>
          <IconButton label="Rename" onClick={() => setNaming(true)}>
            <PencilLine {...icon} />
          </IconButton>
        </Item>
        <Item>
          <IconButton
            label={mark.locked ? 'Unlock' : 'Lock'}
            onClick={() => setOnMark(mark.id, { locked: mark.locked ? undefined : true })}
          >
            {mark.locked ? <Lock {...icon} /> : <LockOpen {...icon} />}
          </IconButton>
        </Item>
        <Item>
          <IconButton
            label="Delete"
            hint="Delete"
            onClick={deleteSelected}
            disabled={mark.locked}
            className="text-brick"
          >
            <Trash2 {...icon} />
          </IconButton>
        </Item>
      </Row>
      {naming && <NameField mark={mark} onDone={() => setNaming(false)} />}
      {wordsOf(mark) && (
        <Button className="mb-1" onClick={() => beginWords(mark, false)}>
          Edit the words
        </Button>
      )}
      <div className="grid grid-cols-2 gap-1.5">
        {kindOf(mark)
          .numbers(mark, { shaper })
          .map((field) => (
            <NumberInput
              key={field.id}
              label={field.label}
              value={field.value}
              onCommit={(value) => setNumber(mark.id, field.id, value)}
            />
          ))}
      </div>
    </div>
  );
}

function NameField({ mark, onDone }: { mark: Mark; onDone: () => void }) {
  return (
    <input
      autoFocus
      aria-label="Name of the mark"
      defaultValue={mark.name ?? ''}
      maxLength={120}
      placeholder={kindOf(mark).label}
      className="mb-1 h-7 w-full rounded-[6px] border border-edge bg-card px-2"
      onBlur={(event) => {
        const name = event.target.value.trim();
        if (name !== (mark.name ?? '')) setOnMark(mark.id, { name: name || undefined });
        onDone();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') event.currentTarget.value = mark.name ?? '';
        if (event.key === 'Enter' || event.key === 'Escape') giveKeysBack(event.currentTarget);
      }}
    />
  );
}
