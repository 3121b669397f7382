import { Bookmark } from 'lucide-react';
import { useState } from 'react';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { announce } from '../../ui/announce';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import { Problem } from '../../ui/Problem';
import { useAsked } from '../search/asked';
import { readSearches } from './searchStore';

/** Keeps what is asked for under a name. */
export function SaveSearch() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        look="quiet"
        icon={<Bookmark size={16} strokeWidth={1.75} />}
        onClick={() => setOpen(true)}
      >
        Save this search
      </Button>
      <Modal open={open} title="Save this search" onClose={() => setOpen(false)}>
        <Form onDone={() => setOpen(false)} />
      </Modal>
    </>
  );
}

function Form({ onDone }: { onDone: () => void }) {
  const { text, order } = useAsked();
  const [name, setName] = useState(text.trim().slice(0, 60));
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    try {
      await api.saveSearch({ name, query: text.trimStart(), order });
      announce(`Saved: ${name}`);
      void readSearches();
      onDone();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <label className="flex flex-col gap-1">
        <span className="font-bold">Name</span>
        <input
          value={name}
          maxLength={300}
          onFocus={(event) => event.target.select()}
          onChange={(event) => setName(event.target.value)}
          className="h-9 rounded-[6px] border border-edge bg-card px-2"
        />
      </label>
      {problem && <Problem>{problem}</Problem>}
      <div className="flex justify-end">
        <Button look="next" type="submit" disabled={!name.trim()}>
          Save
        </Button>
      </div>
    </form>
  );
}
