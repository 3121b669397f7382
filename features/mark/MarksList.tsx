import { ImagePlus, MousePointer2, Plus, Undo2 } from 'lucide-react';
import { useCallback, useRef, type KeyboardEvent } from 'react';
import { Button } from '../ui/Button';
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
            <MarkRow key={mark.id} stored={mark} onStep={step} />
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
