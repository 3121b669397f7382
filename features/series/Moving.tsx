import { Film } from 'lucide-react';
import { useState } from 'react';
import type { MovingFormat, Series } from '@/core/contracts/series';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { saveBlob } from '../pictures/saveBlob';
import { Button } from '../ui/Button';
import { ChipRadios } from '../ui/ChipRadios';
import { Modal } from '../ui/Modal';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';

type Which = 'day' | 'all';

const whichOnes: { value: Which; label: string }[] = [
  { value: 'day', label: 'This day' },
  { value: 'all', label: 'All days' },
];
const formats: { value: MovingFormat; label: string }[] = [
  { value: 'gif', label: 'GIF' },
  { value: 'webp', label: 'WebP, without loss' },
];

/** The pictures of a series, kept as one that moves. */
export function Moving({ series: { id, name }, day }: { series: Series; day: string }) {
  const [open, setOpen] = useState(false);
  const [which, setWhich] = useState<Which>('day');
  const [format, setFormat] = useState<MovingFormat>('gif');
  const [seconds, setSeconds] = useState(0.5);
  const [longest, setLongest] = useState(1000);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const close = () => {
    setOpen(false);
    setProblem(null);
  };
  const save = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const wish = { format, seconds, longest, ...(which === 'day' && { day }) };
      const blob = await api.seriesMoving(id, wish);
      saveBlob(blob, `${name}${which === 'day' ? ` ${day}` : ''}.${format}`);
      close();
    } catch (error) {
      setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <Button icon={<Film size={18} strokeWidth={1.75} />} onClick={() => setOpen(true)}>
        Moving picture
      </Button>
      <Modal
        open={open}
        title="Moving picture"
        description="Its pictures one after the other, as they leave, in one file that your browser saves."
        onClose={close}
      >
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <ChipRadios words label="Of" value={which} options={whichOnes} onChange={setWhich} />
          <ChipRadios words label="As" value={format} options={formats} onChange={setFormat} />
          <NumberInput
            label="Seconds for each"
            value={seconds}
            min={0.02}
            max={60}
            onCommit={setSeconds}
          />
          <NumberInput
            label="Longest side, pixels"
            value={longest}
            min={16}
            max={8000}
            onCommit={(value) => setLongest(Math.round(value))}
          />
          {problem && <Problem>{problem}</Problem>}
          <div className="flex justify-end gap-2">
            <Button onClick={close}>Leave it</Button>
            <Button look="next" type="submit" disabled={busy}>
              {busy ? 'Made …' : 'Save it'}
            </Button>
          </div>
        </form>
      </Modal>
    </>
  );
}
