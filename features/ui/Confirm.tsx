import { Button } from './Button';
import { Modal } from './Modal';

interface Props {
  open: boolean;
  title: string;
  /** What will be gone and what stays. */
  description: string;
  /** What is done, as its button says. */
  verb: string;
  onYes: () => void;
  onClose: () => void;
}

/** Asks before something goes away; leaving it is the first choice. */
export function Confirm({ open, title, description, verb, onYes, onClose }: Props) {
  return (
    <Modal open={open} title={title} description={description} onClose={onClose}>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          look="danger"
          onClick={() => {
            onYes();
            onClose();
          }}
        >
          {verb}
        </Button>
      </div>
    </Modal>
  );
}
