import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { keyWords, type KeyName } from '@/core/clip/pressed';
import { deskPointer, paintDesk } from '@/core/desk/build';
import { fitScale } from '@/core/geometry/rect';
import type { Point } from '@/core/geometry/point';
import type { Shaper } from '@/core/drawing/shaper';
import { loadShaper } from '@/workers/loadShaper';
import { useSize } from '../../../ui/useSize';
import { Problem } from '../../../ui/Problem';
import { deskSource } from './desk';
import { tellHand } from './hand';
import { deskPart, useDesk } from './live';
import { WatchedOutline } from '../../long/Watched';
import { DisplayMap } from '../DisplayMap';
import { changeWay, useSettings } from '../../../settings/settingsStore';

const cursors = { arrow: 'default', text: 'text', hand: 'pointer' } as const;

/** The live practice desk: a small computer to try everything on. */
export function Live() {
  const display = useSettings((s) => s.settings.way.display);
  const desk = useDesk((s) => s.look);
  const part = deskPart(display, desk);
  const [problem, setProblem] = useState<string | null>(null);
  const [shaper, setShaper] = useState<Shaper | null>(null);
  useEffect(() => {
    loadShaper().then(setShaper, () =>
      setProblem('The fonts could not be loaded, so the desk cannot be drawn. Reload the page.'),
    );
  }, []);
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="font-name text-lg">Practice desk</h1>
        <span className="font-measure text-[13px] text-faint">
          {part.width} × {part.height} px
        </span>
        <DisplayChooser />
      </div>
      {problem && <Problem>{problem}</Problem>}
      {shaper ? <LiveDesk shaper={shaper} /> : <div className="grow" />}
    </>
  );
}

function DisplayChooser() {
  const display = useSettings((s) => s.settings.way.display);
  const desk = useDesk((s) => s.look);
  const shown = deskPart('current', desk);
  const displays = deskSource.displays();
  return (
    <DisplayMap
      displays={displays}
      value={displays.some((d) => d.id === display) ? display : 'current'}
      current={displays.find((d) => d.bounds === shown)?.id}
      onChoose={(id) => changeWay({ display: id })}
    />
  );
}

const namesOf = ({ key, ctrlKey, altKey, shiftKey, metaKey }: KeyboardEvent): KeyName => ({
  ...{ key, ctrl: ctrlKey, alt: altKey, shift: shiftKey, meta: metaKey },
});

/** Keys that the desk leaves to Rezzik and the browser. */
const notForTheDesk = new Set(['Tab', 'F5', 'F12']);

function LiveDesk({ shaper }: { shaper: Shaper }) {
  const display = useSettings((s) => s.settings.way.display);
  const desk = useDesk((s) => s.look);
  const send = useDesk((s) => s.send);
  const [frame, space] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const part = deskPart(display, desk);
  const scale = space.width > 0 ? fitScale(part, space, 1) : 0;

  useEffect(() => {
    const timer = setInterval(() => send({ type: 'tick', now: Date.now() }), 200);
    return () => clearInterval(timer);
  }, [send]);

  useEffect(() => {
    const element = canvas.current;
    const surface = element?.getContext('2d');
    if (!element || !surface || scale === 0) return;
    const dots = scale * window.devicePixelRatio;
    const width = Math.round(part.width * dots);
    const height = Math.round(part.height * dots);
    if (element.width !== width || element.height !== height)
      Object.assign(element, { width, height });
    surface.setTransform(dots, 0, 0, dots, 0, 0);
    surface.clearRect(0, 0, part.width, part.height);
    paintDesk(surface, desk, shaper, part);
  }, [desk, shaper, part, scale]);

  const place = (event: PointerEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return {
      x: part.x + (event.clientX - box.left) / scale,
      y: part.y + (event.clientY - box.top) / scale,
    };
  };
  const key = (event: KeyboardEvent, down: boolean) => {
    if (notForTheDesk.has(event.key)) return;
    const busy = desk.menu !== null;
    send({ type: 'key', key: event.key, down });
    const written = down && !event.repeat ? keyWords(namesOf(event)) : null;
    if (written) tellHand({ key: written });
    // Alt would open the browser's menu.
    if (busy || event.key === 'Alt') event.preventDefault();
  };
  return (
    <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
      <div className="relative" style={{ width: part.width * scale, height: part.height * scale }}>
        <canvas
          ref={canvas}
          role="application"
          aria-label="Practice desk, live"
          tabIndex={0}
          // An open menu has the keys, as on a real desktop.
          data-takes-keys={desk.menu !== null || undefined}
          style={{
            cursor: cursors[deskPointer(desk)?.shape ?? 'arrow'],
          }}
          className="block size-full rounded-[6px] shadow-picture"
          onPointerMove={(event) => send({ type: 'move', at: place(event) })}
          onPointerDown={(event) => {
            event.currentTarget.focus();
            event.currentTarget.setPointerCapture(event.pointerId);
            send({ type: 'press', at: place(event) });
            tellHand(place(event));
          }}
          onPointerUp={() => send({ type: 'release' })}
          onPointerLeave={() => send({ type: 'leave' })}
          onWheel={(event) => send({ type: 'wheel', by: event.deltaY })}
          onKeyDown={(event) => key(event, true)}
          onKeyUp={(event) => key(event, false)}
          onBlur={() => send({ type: 'blur' })}
        />
        <WatchedOutline width={part.width} height={part.height} />
      </div>
    </div>
  );
}
