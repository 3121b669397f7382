import { StickyNote } from 'lucide-react';
import { useState } from 'react';
import { messageOf } from '../api/ask';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Toggle } from '../ui/Toggle';
import { Chip } from './Chip';
import { clipboardFiles } from './files';
import { sheetProblem, takeSheet } from './sheet';

/** An empty sheet to put pictures on: a source like any other. */
export function SheetChip() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Chip
        icon={<StickyNote size={16} strokeWidth={1.75} aria-hidden />}
        label="Empty sheet"
        onClick={() => setOpen(true)}
      />
      <Modal open={open} title="Empty sheet" onClose={() => setOpen(false)}>
        <Form />
      </Modal>
    </>
  );
}

function Form() {
  const [size, setSize] = useState({ width: 1280, height: 800 });
  const [colour, setColour] = useState('#FFFFFF');
  const [clear, setClear] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const attempt = (work: () => Promise<void>) =>
    work().catch((error: unknown) => setProblem(messageOf(error)));
  const asPasted = async () => {
    const [file] = await clipboardFiles();
    if (!file) throw new Error('There is no picture on the clipboard.');
    const picture = await createImageBitmap(file);
    setSize({ width: picture.width, height: picture.height });
    picture.close();
    setProblem(null);
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const wrong = sheetProblem(size);
        setProblem(wrong);
        if (wrong || busy) return;
        setBusy(true);
        void attempt(() => takeSheet(size, clear ? null : colour)).finally(() => setBusy(false));
      }}
    >
      <div className="flex flex-wrap items-center gap-3">
        <NumberInput
          label="Width, px"
          value={size.width}
          min={1}
          onCommit={(width) => setSize((s) => ({ ...s, width: Math.round(width) }))}
        />
        <NumberInput
          label="Height, px"
          value={size.height}
          min={1}
          onCommit={(height) => setSize((s) => ({ ...s, height: Math.round(height) }))}
        />
        <Button type="button" onClick={() => void attempt(asPasted)}>
          As large as what is copied
        </Button>
      </div>
      <Toggle label="Transparent" checked={clear} onChange={setClear} />
      {!clear && (
        <label className="flex items-center gap-2">
          Colour
          <input
            type="color"
            value={colour}
            onChange={(event) => setColour(event.target.value.toUpperCase())}
            className="h-8 w-14 rounded-[6px] border border-edge bg-card"
          />
        </label>
      )}
      {problem && <Problem>{problem}</Problem>}
      <div className="flex justify-end">
        <Button look="next" type="submit" disabled={busy}>
          Begin on it
        </Button>
      </div>
    </form>
  );
}
