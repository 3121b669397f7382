import { Smartphone } from 'lucide-react';
import { useState, type ReactElement, type ReactNode } from 'react';
import { wasOffered } from './offered';
import { PhoneDialog } from './PhoneDialog';

interface Props {
  openInMark: boolean;
  /** The button, given what it does. */
  chip: (icon: ReactNode, label: string, onClick: () => void) => ReactElement;
}

/** Takes a picture from a phone; a tab that is loaded anew goes on waiting for it. */
export function PhoneChip({ openInMark, chip }: Props) {
  const [open, setOpen] = useState(wasOffered);
  return (
    <>
      {chip(<Smartphone size={16} strokeWidth={1.75} className="shrink-0" />, 'From a phone', () =>
        setOpen(true),
      )}
      {open && <PhoneDialog openInMark={openInMark} onClose={() => setOpen(false)} />}
    </>
  );
}
