import { Button } from '../ui/Button';

interface Props {
  name: string;
  /** What it does not do before. */
  words: string;
  onConfirm: () => void;
}

/** Said of what came in with an archive, until a person has looked at it. */
export function Unconfirmed({ name, words, onConfirm }: Props) {
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2">
      <Button look="next" aria-label={`Confirm ${name}`} onClick={onConfirm}>
        Confirm
      </Button>
      <span className="text-[13px] text-brick">Came in with an archive. {words}</span>
    </div>
  );
}
