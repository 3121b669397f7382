import { Smartphone } from 'lucide-react';
import { useState } from 'react';
import { Chip } from '../Chip';
import { wasOffered } from './offered';
import { PhoneDialog } from './PhoneDialog';

/** Takes a picture from a phone; a tab that is loaded anew goes on waiting for it. */
export function PhoneChip({ openInMark }: { openInMark: boolean }) {
  const [open, setOpen] = useState(wasOffered);
  return (
    <>
      <Chip
        icon={<Smartphone size={16} strokeWidth={1.75} className="shrink-0" />}
        label="From a phone"
        onClick={() => setOpen(true)}
      />
      {open && <PhoneDialog openInMark={openInMark} onClose={() => setOpen(false)} />}
    </>
  );
}
