import { createPortal } from 'react-dom';
import { STATUS_SLOT } from '../../thread/statusSlot';
import { useEffect, useMemo } from 'react';
import { toHex } from '@/core/colour/colour';
import { contains, union } from '@/core/geometry/rect';
import { markBounds } from '@/core/marks/registry';
import { usePointer } from '../session/pointerStore';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import type { StoredState } from '../session/document';
import { shownMarks } from '../session/session';

/** Zoom, place and colour under the pointer, size of the selection, when it was stored. */
export function StatusLine() {
  const scale = usePointer((p) => p.camera.scale);
  const stored = useDocument((s) => s.stored);
  const slot = document.getElementById(STATUS_SLOT);
  if (!slot) return null;
  return createPortal(
    <div className="grid grid-cols-[repeat(4,auto)] justify-start gap-x-4 font-measure text-[12px] leading-[17px] text-soft">
      <span className="min-w-11">{Math.round(scale * 100)} %</span>
      <UnderPointer />
      <SelectionSize />
      <span role="status" data-testid="stored" className="col-span-4 row-start-2">
        {storedWords(stored)}
      </span>
    </div>,
    slot,
  );
}

function storedWords(stored: StoredState): string {
  switch (stored.name) {
    case 'stored':
      return stored.at === null
        ? 'All changes stored'
        : `All changes stored ${new Intl.DateTimeFormat(undefined, { timeStyle: 'medium' }).format(stored.at)}`;
    case 'storing':
      return 'Storing …';
    case 'waiting':
      return stored.why ? `Not stored yet: ${stored.why}` : 'Not stored yet';
    case 'stale':
      return 'Changed elsewhere: your version is held in this browser';
  }
}

/** Reads single pixels of the frame. */
function usePixelReader(picture: ImageBitmap) {
  const surface = useMemo(() => {
    const canvas = new OffscreenCanvas(1, 1);
    return canvas.getContext('2d', { willReadFrequently: true });
  }, []);
  useEffect(() => surface?.clearRect(0, 0, 1, 1), [surface, picture]);
  return (x: number, y: number): string | null => {
    if (!surface) return null;
    surface.clearRect(0, 0, 1, 1);
    surface.drawImage(picture, x, y, 1, 1, 0, 0, 1, 1);
    const [r = 0, g = 0, b = 0] = surface.getImageData(0, 0, 1, 1).data;
    return toHex({ r, g, b });
  };
}

function UnderPointer() {
  const at = usePointer((p) => p.at);
  const picture = useDocument((s) => s.picture);
  const view = useDocument((s) => s.history.document.view.crop);
  const read = usePixelReader(picture);
  if (!at || !contains({ x: 0, y: 0, width: picture.width, height: picture.height }, at))
    return null;
  const x = Math.floor(at.x);
  const y = Math.floor(at.y);
  const hex = read(x, y);
  return (
    <>
      <span>
        x {x - view.x} y {y - view.y}
      </span>
      {hex && (
        <span className="flex items-center gap-1.5">
          <span aria-hidden className="size-3 border border-edge" style={{ background: hex }} />
          {hex}
        </span>
      )}
    </>
  );
}

function SelectionSize() {
  const history = useDocument((s) => s.history);
  const live = useLive((s) => s.live);
  const selection = useTool((s) => s.selection);
  const shaper = useDocument((s) => s.shaper);
  const marks = shownMarks({ history, live });
  const wanted = new Set([...selection, ...live.map((m) => m.id)]);
  const chosen = marks.filter((m) => wanted.has(m.id));
  if (chosen.length === 0) return null;
  const r = union(chosen.map((mark) => markBounds(mark, { shaper })));
  return (
    <span>
      {Math.round(r.width)} × {Math.round(r.height)} px
    </span>
  );
}
