import { ImagePlus, MousePointer2, Plus, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useRef, type KeyboardEvent, type RefObject } from 'react';
import type { Mark, MarkName } from '@/core/marks/registry';
import { Button } from '../ui/Button';
import { Item, Row } from '../ui/Row';
import { addInMiddle, backToFrame, select } from './actions';
import { addPicture } from './pieces';
import { session, useSession } from './session';
import { MarkRow } from './MarkRow';
import { Several } from './Several';
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
  const chosen = useSession((s) => s.selection[0]);
  /** The row that the Tab key comes to. */
  const stop = marks.find((mark) => mark.id === chosen)?.id ?? marks[0]?.id;
  useFocusKept(list, marks);
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
    rowOf(list.current, next.id)?.focus();
  }, []);
  const facts = factsOf(tool);
  /** What was made has the focus: its row, unless its words are being typed. */
  const add = (name: MarkName) => {
    addInMiddle(name, view);
    const made = session().selection[0];
    if (made) requestAnimationFrame(() => rowOf(list.current, made)?.focus());
  };
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
        // Contained, and rows out of sight not laid out: with thousands, each stroke would pay for it.
        <ul
          ref={list}
          className="mb-2 max-h-[40vh] overflow-auto rounded-[8px] border border-line bg-card [contain:content]"
        >
          {marks.map((mark) => (
            <MarkRow key={mark.id} stored={mark} isStop={mark.id === stop} onStep={step} />
          ))}
        </ul>
      )}
      <Several />
      <Row label="Add" className="flex flex-wrap gap-2">
        {addable && (
          <Item>
            <Button icon={<Plus size={16} strokeWidth={1.75} />} onClick={() => add(addable)}>
              Add {facts.label.toLowerCase()}
            </Button>
          </Item>
        )}
        <Item>
          <Button
            look="quiet"
            icon={<MousePointer2 size={16} strokeWidth={1.75} />}
            onClick={() => add('piece')}
          >
            Add pointer
          </Button>
        </Item>
        <PictureButton />
        <Item>
          <Button
            look="quiet"
            icon={<Undo2 size={16} strokeWidth={1.75} />}
            disabled={isUntouched}
            onClick={backToFrame}
          >
            Untouched frame
          </Button>
        </Item>
      </Row>
    </section>
  );
}

const rowOf = (list: HTMLElement | null, id: string): HTMLElement | null =>
  list?.querySelector<HTMLElement>(`[data-mark="${id}"]`) ?? null;

/**
 * Whoever stands on a row that goes away is taken to the one that follows, and from the last one
 * to the picture.
 */
function useFocusKept(list: RefObject<HTMLUListElement | null>, marks: readonly Mark[]): void {
  const place = useRef(-1);
  useEffect(() => {
    const note = () => {
      const row = document.activeElement?.closest('li');
      place.current =
        row && list.current?.contains(row) ? [...list.current.children].indexOf(row) : -1;
    };
    document.addEventListener('focusin', note);
    return () => document.removeEventListener('focusin', note);
  }, [list]);
  useEffect(() => {
    if (place.current < 0 || document.activeElement !== document.body) return;
    const next = marks[Math.min(place.current, marks.length - 1)];
    const row = next && rowOf(list.current, next.id);
    if (row) row.focus();
    else document.querySelector<HTMLElement>('[data-home]')?.focus();
    place.current = -1;
  }, [list, marks]);
}

/** Lays a picture from a file on the shot; pasting and dropping do the same. */
function PictureButton() {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Item>
        <Button
          look="quiet"
          icon={<ImagePlus size={16} strokeWidth={1.75} />}
          onClick={() => input.current?.click()}
        >
          Add picture
        </Button>
      </Item>
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
