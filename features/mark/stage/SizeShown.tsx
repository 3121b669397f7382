import { useEffect } from 'react';
import { toScreen } from '../session/camera';
import { usePointer } from '../session/pointerStore';
import { hideSize, useSizeShown } from './sizeInHand';

/** It is shown so long after the last change, ms. */
const STAYS = 1_200;

/** While a thickness or size is changed on the picture: how large it is now, beside the pointer. */
export function SizeShown() {
  const shown = useSizeShown((s) => s.shown);
  const at = usePointer((p) => p.at);
  const { camera, size } = usePointer();
  useEffect(() => {
    if (!shown) return;
    const timer = setTimeout(hideSize, STAYS);
    return () => clearTimeout(timer);
  }, [shown]);
  useEffect(() => hideSize, []);
  if (!shown) return null;
  const { x, y } = at ? toScreen(camera, at) : { x: size.width / 2, y: 48 };
  const across = shown.across === null ? 0 : Math.max(1, shown.across * camera.scale);
  return (
    <div aria-hidden data-testid="size" className="pointer-events-none absolute inset-0">
      {across > 0 && (
        <span
          className="absolute rounded-full border-2 border-petrol outline outline-1 outline-card"
          style={{ left: x - across / 2, top: y - across / 2, width: across, height: across }}
        />
      )}
      <span
        className="absolute rounded-[6px] border border-edge bg-card px-2 py-0.5 font-measure text-[13px] whitespace-nowrap shadow-raised"
        style={{
          left: Math.min(Math.max(4, x + across / 2 + 12), Math.max(4, size.width - 150)),
          top: Math.min(Math.max(4, y - 12), Math.max(4, size.height - 32)),
        }}
      >
        {shown.label} {shown.words}
      </span>
    </div>
  );
}
