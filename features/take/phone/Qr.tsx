import { generate } from 'lean-qr';
import { useMemo } from 'react';

/** Light around the code, in modules (ISO/IEC 18004: four). */
const QUIET = 4;

/** An address as a code that a camera reads: dark on light, whatever the colours of the page. */
export function Qr({ text }: { text: string }) {
  const { path, side } = useMemo(() => {
    const code = generate(text);
    let dark = '';
    for (let y = 0; y < code.size; y += 1) {
      for (let x = 0; x < code.size; x += 1) {
        if (code.get(x, y)) dark += `M${x + QUIET} ${y + QUIET}h1v1h-1z`;
      }
    }
    return { path: dark, side: code.size + 2 * QUIET };
  }, [text]);
  return (
    <svg
      role="img"
      aria-label="The address as a code for the phone’s camera"
      viewBox={`0 0 ${side} ${side}`}
      shapeRendering="crispEdges"
      className="size-60 rounded-[7px] border border-line"
      style={{ background: 'white' }}
    >
      <path d={path} fill="black" style={{ forcedColorAdjust: 'none' }} />
    </svg>
  );
}
