import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { IconButton } from './IconButton';

interface Props {
  open: boolean;
  title: string;
  description?: string;
  /** Nearly as wide as the window, for a page of things. */
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}

export function Modal({ open, title, description, wide = false, onClose, children }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          data-modal
          aria-describedby={description ? undefined : ''}
          className={`fixed top-1/2 left-1/2 z-50 max-h-[94vh] ${wide ? 'w-[min(1200px,96vw)]' : 'w-[min(560px,92vw)]'} -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-[9px] border border-line bg-card p-5 shadow-raised`}
        >
          <Dialog.Title className="mr-10 mb-3 font-name text-lg">{title}</Dialog.Title>
          {description && (
            <Dialog.Description className="mb-4 text-soft">{description}</Dialog.Description>
          )}
          {children}
          {/* Last, so that the first thing in the dialog has the focus. */}
          <Dialog.Close asChild>
            <IconButton label="Close" className="absolute top-4 right-4">
              <X size={18} strokeWidth={1.75} />
            </IconButton>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
