import { useState } from 'react';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';

interface Props {
  open: boolean;
  title: string;
  name: string;
  most?: number;
  onName: (name: string) => void;
  onClose: () => void;
}

/** Asks for another name. */
export function Rename({ open, title, onClose, ...rest }: Props) {
  return (
    <Modal open={open} title={title} onClose={onClose}>
      <Form {...rest} onClose={onClose} />
    </Modal>
  );
}

function Form({ name, most = 300, onName, onClose }: Omit<Props, 'open' | 'title'>) {
  const [next, setNext] = useState(name);
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!next.trim()) return;
        if (next.trim() !== name) onName(next.trim());
        onClose();
      }}
    >
      <input
        aria-label="Name"
        value={next}
        maxLength={most}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setNext(event.target.value)}
        className="h-9 min-w-0 grow rounded-[6px] border border-edge bg-card px-2"
      />
      <Button look="next" type="submit" disabled={!next.trim()}>
        Rename
      </Button>
    </form>
  );
}
