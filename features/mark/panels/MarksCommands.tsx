import { ImagePlus, MousePointer2, Plus, Trash2, Undo2 } from 'lucide-react';
import { useRef } from 'react';
import type { MarkName } from '@/core/marks/registry';
import { Button } from '../../ui/Button';
import { Item, Row } from '../../ui/Row';
import { backToFrame } from '../actions/change';
import { addInMiddle } from '../actions/addInMiddle';
import { eraseAll } from '../actions/handTools';
import { addPicture } from '../actions/pieces';
import { useDocument } from '../session/document';
import { useTool } from '../session/tool';
import { session } from '../session/session';
import { factsOf, isMarkTool } from '../session/tools';

const icon = { size: 16, strokeWidth: 1.75 };

/** Under the list: what adds a mark without the picture, and what takes all of them away. */
export function MarksCommands({ focusRow }: { focusRow: (id: string) => void }) {
  const tool = useTool((s) => s.tool);
  const add = (name: MarkName) => {
    addInMiddle(name, session().history.document.view.crop);
    const made = session().selection[0];
    // What was made has the focus: its row, unless its words are being typed.
    if (made) focusRow(made);
  };
  const addable = isMarkTool(tool) ? tool : null;
  return (
    <>
      <Row label="Add" className="flex flex-wrap gap-1.5">
        {addable && (
          <Item>
            <Button
              className="!gap-1.5 !px-1.5"
              icon={<Plus {...icon} />}
              onClick={() => add(addable)}
            >
              Add {factsOf(tool).label.toLowerCase()}
            </Button>
          </Item>
        )}
        <Item>
          <Button
            className="!gap-1.5 !px-1.5"
            icon={<MousePointer2 {...icon} />}
            onClick={() => add('piece')}
          >
            Add pointer
          </Button>
        </Item>
        <PictureButton />
      </Row>
      <Removal />
    </>
  );
}

/** All marks away, or all that was done to the frame; one step of undo each. */
function Removal() {
  const removable = useDocument((s) => s.history.document.marks.some((mark) => !mark.locked));
  const isUntouched = useDocument(({ frame, history: { document } }) => {
    const { crop, shape, turn, room } = document.view;
    const whole = crop.width === frame.width && crop.height === frame.height;
    return document.marks.length === 0 && whole && !shape && !turn && !room && !document.finish;
  });
  return (
    <Row label="Take away" className="mt-1.5 flex flex-wrap gap-1.5">
      <Item>
        <Button
          look="quiet"
          icon={<Trash2 {...icon} />}
          disabled={!removable}
          onClick={() => eraseAll()}
        >
          Remove all marks
        </Button>
      </Item>
      <Item>
        <Button
          look="quiet"
          icon={<Undo2 {...icon} />}
          disabled={isUntouched}
          onClick={backToFrame}
        >
          Untouched frame
        </Button>
      </Item>
    </Row>
  );
}

/** Lays a picture from a file on the shot; pasting and dropping do the same. */
function PictureButton() {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Item>
        <Button
          className="!gap-1.5 !px-1.5"
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
