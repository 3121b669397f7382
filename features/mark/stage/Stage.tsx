import type { Size } from '@/core/geometry/size';
import { useEffect, useMemo, type PointerEvent } from 'react';
import { Layer, Stage as KonvaStage } from 'react-konva';
import type { Rect } from '@/core/geometry/rect';
import { sheetOf } from '@/core/document/view';
import type { StrokePoint } from '@/core/marks/contract';
import { useHeldSpace } from '../../ui/useHeldSpace';
import { useSize } from '../../ui/useSize';
import { pan, resolveCamera, toFrame, zoomAt, type Camera } from '../session/camera';
import { CropHandles } from './CropHandles';
import {
  abandon,
  gestureGoesOn,
  moveTo,
  openUnder,
  pressOn,
  releaseAll,
  startPan,
} from '../gestures/hand';
import { usePointer } from '../session/pointerStore';
import { Overlays } from './Overlays';
import { Picture } from './Picture';
import { useParts } from '../recognise/parts';
import { RailView } from './RailView';
import { Rulers } from './Rulers';
import { SelectionHandles } from './SelectionHandles';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { useView } from '../session/view';
import { session, update } from '../session/session';
import { sizeBy } from './sizeInHand';
import { SizeShown } from './SizeShown';
import { SquareHandles } from './SquareHandles';
import { Surrounded, useWholeSeen } from './Surrounded';
import { StageMenu } from './StageMenu';
import { TextField } from './TextField';
import { Touches } from '../gestures/touches';
import { TrueUpChip } from './TrueUpChip';

/** The picture with its marks, its rulers, and everything that is done on it by pointer. */
export function Stage() {
  const [space, size] = useSize<HTMLDivElement>();
  const shownView = useDocument((s) => s.history.document.view);
  const view = useMemo(() => sheetOf(shownView), [shownView]);
  const cropping = useLive((s) => s.cropping !== null);
  const squaring = useLive((s) => s.squaring !== null);
  const picture = useDocument((s) => (squaring ? s.frame : s.picture));
  const tool = useTool((s) => s.tool);
  const camera = useView((s) => s.camera);
  const id = useDocument((s) => s.id);
  const shown = useMemo<Rect>(
    () =>
      cropping || squaring ? { x: 0, y: 0, width: picture.width, height: picture.height } : view,
    [cropping, squaring, picture, view],
  );
  const seen = useLive((s) => s.cropSeen) ?? shown;
  const resolved = useMemo(() => resolveCamera(camera, seen, size), [camera, seen, size]);
  usePublishedCamera(resolved, size);
  const parts = useParts();
  const panning = useHeldSpace();
  const pressed = useLive((s) => s.before);
  const before = pressed || (panning && tool === 'finish');
  const whole = useWholeSeen(before);
  const touches = useMemo(() => new Touches(), []);

  const place = (event: { clientX: number; clientY: number }) => {
    const box = space.current?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  };
  const toPoint = (event: globalThis.PointerEvent): StrokePoint => ({
    ...toFrame(resolved, place(event)),
    pressure: event.pointerType === 'pen' ? event.pressure : 0.5,
  });

  const down = (event: PointerEvent) => {
    if (event.target instanceof HTMLTextAreaElement) return;
    const { editing, tool } = session();
    event.currentTarget.setPointerCapture(event.pointerId);
    space.current?.focus({ preventScroll: true });
    // A finger was nowhere before.
    usePointer.setState({ at: toFrame(resolved, place(event)) });
    const meant = touches.press(event, place(event), event.timeStamp);
    if (meant === 'pinch') abandon();
    if (meant !== 'draw') return;
    // A handle that was pressed has begun its own gesture.
    if (gestureGoesOn()) return;
    // Clicking away from words ends them, and begins nothing new.
    if (editing && tool !== 'grab') return;
    if (event.button === 1 || panning) startPan(place(event));
    else if (event.button === 0) {
      pressOn({
        at: toPoint(event.nativeEvent),
        scale: resolved.scale,
        adds: event.shiftKey,
        copies: event.ctrlKey || event.metaKey || event.altKey,
      });
    }
  };
  const move = (event: PointerEvent) => {
    const { nativeEvent } = event;
    touches.hover(event, event.timeStamp);
    const pinched = touches.move(event, place(event), resolved);
    if (pinched) {
      update({ camera: pinched });
      return;
    }
    const at = toFrame(resolved, place(event));
    usePointer.setState({ at });
    if (event.buttons === 0) return;
    const all = nativeEvent.getCoalescedEvents?.() ?? [];
    const points = (all.length ? all : [nativeEvent]).map(toPoint);
    moveTo({
      points,
      at: points.at(-1) ?? toPoint(nativeEvent),
      screen: place(event),
      scale: resolved.scale,
      keep: event.shiftKey,
      free: event.altKey,
    });
  };
  const up = (event: PointerEvent) => {
    if (!touches.release(event)) releaseAll(resolved.scale);
  };
  useWheel(space, resolved);
  return (
    <div className="grid min-h-0 grow grid-cols-[20px_1fr] grid-rows-[20px_1fr] bg-desk">
      {/* What is around the picture has no pixels of the frame. */}
      <Rulers camera={resolved} size={size} view={view} hidden={whole} />
      <StageMenu>
        <div
          ref={space}
          role="application"
          aria-label="Picture. The Marks list does by keyboard all that is done here by pointer."
          tabIndex={0}
          data-testid="stage"
          data-parts={parts}
          data-of={id}
          data-home
          className="relative min-h-0 min-w-0 touch-none overflow-hidden"
          style={{
            cursor: panning
              ? 'grab'
              : tool === 'grab'
                ? 'default'
                : tool === 'text'
                  ? 'text'
                  : 'crosshair',
          }}
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
          onPointerCancel={up}
          onPointerLeave={() => usePointer.setState({ at: null })}
          onDoubleClick={(event) => openUnder(toFrame(resolved, place(event)), resolved.scale)}
        >
          {size.width > 0 && (
            <KonvaStage width={size.width} height={size.height}>
              <Picture camera={resolved} shown={shown} size={size} before={before} />
              <Layer>
                <RailView camera={resolved} />
                <SelectionHandles camera={resolved} />
                <CropHandles camera={resolved} />
                <SquareHandles camera={resolved} />
                <Overlays camera={resolved} />
              </Layer>
            </KonvaStage>
          )}
          <Surrounded size={size} whole={whole} />
          <TextField camera={resolved} />
          <TrueUpChip />
          <SizeShown />
        </div>
      </StageMenu>
    </div>
  );
}

/** So much turning of the wheel is one step; a wheel that turns without steps sends many a little. */
const NOTCH = 50;

/** The wheel as steps of a thickness or size. */
class SizeWheel {
  private turned = 0;

  turn({ deltaX, deltaY }: WheelEvent): void {
    // Some systems turn a wheel with Alt held sideways.
    const by = deltaY || deltaX;
    if (Math.sign(by) !== Math.sign(this.turned)) this.turned = 0;
    this.turned += by;
    if (Math.abs(this.turned) < NOTCH) return;
    sizeBy(this.turned < 0 ? 1 : -1);
    this.turned = 0;
  }
}

/**
 * The wheel scrolls the picture; with Ctrl, or by pinching, it enlarges; with Alt it makes what is
 * in hand thicker or larger.
 */
function useWheel(space: React.RefObject<HTMLDivElement | null>, camera: Camera): void {
  const sized = useMemo(() => new SizeWheel(), []);
  useEffect(() => {
    const element = space.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      if (event.altKey) {
        sized.turn(event);
        return;
      }
      const box = element.getBoundingClientRect();
      const at = { x: event.clientX - box.left, y: event.clientY - box.top };
      const next =
        event.ctrlKey || event.metaKey
          ? zoomAt(camera, at, Math.exp(-event.deltaY / 240))
          : event.shiftKey
            ? pan(camera, -event.deltaY, 0)
            : pan(camera, -event.deltaX, -event.deltaY);
      update({ camera: next });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [space, camera, sized]);
}

/** Lets the keys and the status line know what is shown. */
function usePublishedCamera(camera: Camera, size: Size): void {
  useEffect(() => usePointer.setState({ camera, size }), [camera, size]);
}
