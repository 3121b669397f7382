import { ContextMenu } from 'radix-ui';
import { useState, type ReactElement, type ReactNode } from 'react';
import type { ActionName } from '../../keys/actions';
import { keyLabel, useKeyOf } from '../../keys/useAction';
import { deleteSelected, setOnMark } from '../actions/change';
import { duplicateSelected } from '../actions/make';
import { shiftInOrder } from '../actions/order';
import { selectAll } from '../actions/chooseTool';
import { markById, marks, select } from '../session/select';
import { pasteMarks } from '../actions/arrange';
import { copyChosen } from '../actions/copying';
import { abandon, gestureGoesOn } from '../gestures/hand';
import { usePointer } from '../session/pointerStore';
import { useLive } from '../session/live';
import { fitView, session } from '../session/session';
import { markAt } from '../session/marksAt';

/**
 * What can be done with the mark under the pointer, or with the picture where there is none: by the
 * second button, by pressing and holding, or by the menu key.
 */
export function StageMenu({ children }: { children: ReactElement }) {
  const [on, setOn] = useState<string | null>(null);
  const [place, setPlace] = useState<HTMLElement | null>(null);
  // A crop or corners that are being pulled come first.
  const busy = useLive((s) => s.cropping !== null || s.squaring !== null);
  const open = (isOpen: boolean) => {
    if (!isOpen) return;
    // A finger that rests has begun to draw; corners that were clicked stay.
    if (gestureGoesOn()) abandon();
    setOn(markUnderHand());
    setPlace(document.querySelector('main'));
  };
  return (
    <ContextMenu.Root modal={false} onOpenChange={open}>
      <ContextMenu.Trigger asChild disabled={busy}>
        {children}
      </ContextMenu.Trigger>
      {/* Within the landmark of the picture. */}
      <ContextMenu.Portal container={place}>
        <ContextMenu.Content
          data-takes-keys
          // A finger that is lifted gives the focus to what is below it.
          onFocusOutside={(event) => event.preventDefault()}
          className="z-50 min-w-52 rounded-[9px] border border-edge bg-card p-1 shadow-raised"
        >
          {on === null ? <WithPicture /> : <WithMark id={on} />}
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}

/** Selects what lies under the pointer; the key that opens menus means what is selected already. */
function markUnderHand(): string | null {
  const { at, camera } = usePointer.getState();
  const { selection } = session();
  const under = at ? markAt(at, camera.scale)?.id : selection[0];
  if (!under) return null;
  if (!selection.includes(under)) select([under]);
  return under;
}

function WithMark({ id }: { id: string }) {
  const locked = markById(id)?.locked ?? false;
  return (
    <>
      <Entry action="mark.copy" onSelect={() => void copyChosen()}>
        Copy
      </Entry>
      <Entry action="mark.duplicate" onSelect={duplicateSelected}>
        Duplicate
      </Entry>
      <Entry action="mark.forward" onSelect={() => shiftInOrder(id, 1)}>
        Forward
      </Entry>
      <Entry action="mark.back" onSelect={() => shiftInOrder(id, -1)}>
        Back
      </Entry>
      <Entry onSelect={() => setOnMark(id, { locked: locked ? undefined : true })}>
        {locked ? 'Unlock' : 'Lock'}
      </Entry>
      <Entry action="mark.delete" disabled={locked} onSelect={deleteSelected}>
        Delete
      </Entry>
    </>
  );
}

function WithPicture() {
  return (
    <>
      <Entry action="mark.paste" onSelect={() => void pasteMarks()}>
        Paste marks
      </Entry>
      <Entry action="mark.all" disabled={marks().length === 0} onSelect={selectAll}>
        Select all
      </Entry>
      <Entry action="mark.fit" onSelect={fitView}>
        Fit
      </Entry>
    </>
  );
}

interface EntryProps {
  /** The same by a key, which is shown. */
  action?: ActionName;
  disabled?: boolean;
  onSelect: () => void;
  children: ReactNode;
}

function Entry({ action, disabled, onSelect, children }: EntryProps) {
  const key = useKeyOf(action ?? 'mark.copy');
  return (
    <ContextMenu.Item
      disabled={disabled}
      onSelect={onSelect}
      className="flex min-h-8 cursor-default items-center justify-between gap-6 rounded-[6px] px-2 outline-none data-[disabled]:text-faint data-[highlighted]:bg-tint"
    >
      {children}
      {action && (
        <span aria-hidden className="font-measure text-[12px] text-soft">
          {keyLabel(key)}
        </span>
      )}
    </ContextMenu.Item>
  );
}
