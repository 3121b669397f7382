import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalDistributeCenter,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalDistributeCenter,
  ArrowDown,
  ArrowUp,
  CopyPlus,
  Eye,
  EyeOff,
  Image,
  ImagePlus,
  Lock,
  LockOpen,
  MousePointer2,
  PencilLine,
  Plus,
  Trash2,
  Undo2,
} from 'lucide-react';
import { memo, useCallback, useRef, useState, type KeyboardEvent } from 'react';
import { colourName } from '@/core/colour/markColours';
import type { Point } from '@/core/geometry/point';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { Modal } from '../ui/Modal';
import { NumberInput } from '../ui/NumberInput';
import {
  addInMiddle,
  backToFrame,
  beginWords,
  deleteSelected,
  duplicateSelected,
  select,
  setNumber,
  setOnMark,
  shiftInOrder,
} from './actions';
import { addPicture } from './pieces';
import { session, shownMarks, useSession } from './session';
import { alignSelected, distributeSelected } from './arrange';
import { groupOf, setGroupNumber, turnGroup } from './group';
import { factsOf, isMarkTool } from './tools';

/** All marks from the lowest to the topmost, with everything the picture offers, by keyboard. */
export function MarksList() {
  const history = useSession((s) => s.history);
  const tool = useSession((s) => s.tool);
  const frame = useSession((s) => s.frame);
  const { crop: view, shape, turn } = history.document.view;
  const isUntouched =
    history.document.marks.length === 0 &&
    view.width === frame.width &&
    view.height === frame.height &&
    !shape &&
    !turn;
  const list = useRef<HTMLUListElement>(null);
  const { marks } = history.document;
  const step = useCallback((event: KeyboardEvent, id: string) => {
    if (event.target !== event.currentTarget) return;
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!by || event.altKey || event.ctrlKey || event.metaKey) return;
    const all = session().history.document.marks;
    const next = all[all.findIndex((mark) => mark.id === id) + by];
    event.preventDefault();
    event.stopPropagation();
    if (!next) return;
    select([next.id]);
    list.current?.querySelector<HTMLButtonElement>(`[data-mark="${next.id}"]`)?.focus();
  }, []);
  const facts = factsOf(tool);
  const addable = isMarkTool(tool) ? tool : null;
  return (
    <section aria-label="Marks">
      <h2 className="mb-2 flex items-center justify-between font-name text-base">
        Marks{' '}
        <span className="font-measure text-[13px] font-normal text-soft">
          {history.document.marks.length}
        </span>
      </h2>
      {marks.length === 0 ? (
        <p className="mb-2 text-soft">None yet. Choose a tool and draw on the picture.</p>
      ) : (
        <ul
          ref={list}
          className="mb-2 max-h-[40vh] overflow-auto rounded-[8px] border border-line bg-card"
        >
          {marks.map((mark) => (
            <Row key={mark.id} stored={mark} onStep={step} />
          ))}
        </ul>
      )}
      <Several />
      <div className="flex flex-wrap gap-2">
        {addable && (
          <Button
            icon={<Plus size={16} strokeWidth={1.75} />}
            onClick={() => addInMiddle(addable, view)}
          >
            Add {facts.label.toLowerCase()}
          </Button>
        )}
        <Button
          look="quiet"
          icon={<MousePointer2 size={16} strokeWidth={1.75} />}
          onClick={() => addInMiddle('piece', view)}
        >
          Add pointer
        </Button>
        <PictureButton />
        <Button
          look="quiet"
          icon={<Undo2 size={16} strokeWidth={1.75} />}
          disabled={isUntouched}
          onClick={backToFrame}
        >
          Untouched frame
        </Button>
      </div>
    </section>
  );
}

/** Lays a picture from a file on the shot; pasting and dropping do the same. */
function PictureButton() {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button
        look="quiet"
        icon={<ImagePlus size={16} strokeWidth={1.75} />}
        onClick={() => input.current?.click()}
      >
        Add picture
      </Button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        aria-label="Picture to add"
        className="hidden"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void addPicture(file);
          event.target.value = '';
        }}
      />
    </>
  );
}

interface RowProps {
  stored: Mark;
  onStep: (event: KeyboardEvent, id: string) => void;
}

/** Drawn anew only when its own mark changes: a shot may have thousands. */
const Row = memo(function Row({ stored, onStep }: RowProps) {
  const mark = useSession((s) => s.live.find((m) => m.id === stored.id)) ?? stored;
  const selected = useSession((s) => s.selection.includes(mark.id));
  const only = useSession((s) => s.selection.length === 1) && selected;
  const [asking, setAsking] = useState(false);
  const kind = kindOf(mark);
  const Icon =
    mark.kind === 'piece' ? (mark.picture ? Image : MousePointer2) : factsOf(mark.kind).icon;
  return (
    <li className={classes('border-b border-line last:border-b-0', selected && 'bg-tint')}>
      <div className="flex items-center gap-1 pr-1">
        <button
          type="button"
          data-mark={mark.id}
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
          <Icon size={16} strokeWidth={1.75} className="shrink-0" aria-hidden />
          <span className={classes('shrink-0 font-bold', mark.off && 'text-faint line-through')}>
            {mark.name ?? kind.label}
          </span>
          <span className="truncate text-[13px] text-soft">{kind.describe(mark)}</span>
          <span className="sr-only">{spoken(mark)}</span>
          {mark.off && <span className="sr-only">switched off</span>}
          {mark.locked && <span className="sr-only">locked</span>}
        </button>
        <IconButton
          label={mark.off ? 'Switch on' : 'Switch off'}
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

/** What can be done with several selected marks at once. */
function Several() {
  const count = useSession((s) => s.selection.length);
  if (count < 2) return null;
  return (
    <div role="group" aria-label="Arrange" className="mb-2 flex flex-wrap">
      {arrangements.map(({ label, icon: Icon, act }) => (
        <IconButton key={label} label={label} onClick={act}>
          <Icon size={16} strokeWidth={1.75} />
        </IconButton>
      ))}
      <GroupNumbers />
    </div>
  );
}

/** The selected marks as one: where they are, how large, and turned by how much. */
function GroupNumbers() {
  const history = useSession((s) => s.history);
  const live = useSession((s) => s.live);
  const selection = useSession((s) => s.selection);
  const { box } = groupOf(shownMarks({ history, live }).filter((m) => selection.includes(m.id)));
  return (
    <div className="mt-1 grid w-full grid-cols-2 gap-1.5">
      {(['x', 'y', 'width', 'height'] as const).map((field) => (
        <NumberInput
          key={field}
          label={{ x: 'Left', y: 'Top', width: 'Width', height: 'Height' }[field]}
          value={box[field]}
          onCommit={(value) => setGroupNumber(field, value)}
        />
      ))}
      <NumberInput label="Turn by" value={0} onCommit={turnGroup} />
    </div>
  );
}

const arrangements = [
  { label: 'Align left', icon: AlignStartVertical, act: () => alignSelected('left') },
  { label: 'Align centres', icon: AlignCenterVertical, act: () => alignSelected('centre') },
  { label: 'Align right', icon: AlignEndVertical, act: () => alignSelected('right') },
  { label: 'Align top', icon: AlignStartHorizontal, act: () => alignSelected('top') },
  { label: 'Align middles', icon: AlignCenterHorizontal, act: () => alignSelected('middle') },
  { label: 'Align bottom', icon: AlignEndHorizontal, act: () => alignSelected('bottom') },
  {
    label: 'Distribute across',
    icon: AlignHorizontalDistributeCenter,
    act: () => distributeSelected('x'),
  },
  {
    label: 'Distribute down',
    icon: AlignVerticalDistributeCenter,
    act: () => distributeSelected('y'),
  },
];

/** What can be done with the one selected mark. */
function Details({ mark }: { mark: Mark }) {
  const shaper = useSession((s) => s.shaper);
  const [naming, setNaming] = useState(false);
  const icon = { size: 16, strokeWidth: 1.75 };
  return (
    <div className="px-2 pb-2">
      <div className="flex flex-wrap">
        <IconButton label="Back" hint="[" onClick={() => shiftInOrder(mark.id, -1)}>
          <ArrowUp {...icon} />
        </IconButton>
        <IconButton label="Forward" hint="]" onClick={() => shiftInOrder(mark.id, 1)}>
          <ArrowDown {...icon} />
        </IconButton>
        <IconButton label="Duplicate" onClick={duplicateSelected}>
          <CopyPlus {...icon} />
        </IconButton>
        <IconButton label="Rename" onClick={() => setNaming(true)}>
          <PencilLine {...icon} />
        </IconButton>
        <IconButton
          label={mark.locked ? 'Unlock' : 'Lock'}
          onClick={() => setOnMark(mark.id, { locked: mark.locked ? undefined : true })}
        >
          {mark.locked ? <Lock {...icon} /> : <LockOpen {...icon} />}
        </IconButton>
        <IconButton
          label="Delete"
          hint="Delete"
          onClick={deleteSelected}
          disabled={mark.locked}
          className="text-brick"
        >
          <Trash2 {...icon} />
        </IconButton>
      </div>
      {naming && <NameField mark={mark} onDone={() => setNaming(false)} />}
      {kindOf(mark).words && (
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
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          event.stopPropagation();
          event.currentTarget.value = mark.name ?? '';
          event.currentTarget.blur();
        }
      }}
    />
  );
}
