import type Konva from 'konva';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Layer, Shape } from 'react-konva';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import type { Mark } from '@/core/marks/registry';
import { withRoom } from '@/core/paint/room';
import { bitmap, sheet } from '@/workers/bitmap';
import { seenAdjusted, type Adjusted } from '../fit/adjusting';
import { seenBy, type Camera } from '../session/camera';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { shownDocument } from '../session/moment';
import { frameDrawer } from '../session/scene';
import { useTool } from '../session/tool';
import { LivePaint } from './livePaint';

/** The picture is drawn smoothly this long after it last moved. */
const REST = 160;

const NONE: readonly Mark[] = [];

interface PictureProps {
  camera: Camera;
  shown: Rect;
  size: Size;
  /** It is to be seen as if nothing were adjusted. */
  before: boolean;
}

/** The picture as it is adjusted, or as good as that until it is worked out. */
function useSeen(bare: boolean, before: boolean): Adjusted {
  const frame = useDocument((s) => s.frame);
  const plain = useDocument((s) => s.plain);
  const picture = useDocument((s) => s.picture);
  const adjust = useDocument((s) => s.history.document.finish?.adjust);
  return bare
    ? { picture: frame, filter: '', over: '' }
    : seenAdjusted(picture, plain, adjust, before);
}

/** The picture with its marks, painted. */
export function Picture({ camera, shown, size, before }: PictureProps) {
  // While corners are pulled square, the frame itself is shown, and nothing on it.
  const bare = useLive((s) => s.squaring !== null);
  const { picture, filter, over } = useSeen(bare, before);
  const shaper = useDocument((s) => s.shaper);
  const marks = useDocument((s) => (bare ? NONE : shownDocument(s).marks));
  const live = useLive((s) => (bare ? NONE : s.live));
  const editing = useTool((s) => s.editing);
  const turn = useDocument((s) => s.history.document.view.turn);
  const pictures = useDocument((s) => s.history.document.pictures);
  const cropping = useLive((s) => s.cropping !== null);
  const shape = useDocument((s) => (cropping || bare ? undefined : s.history.document.view.shape));
  const painter = useMemo(() => new LivePaint(), []);
  const view = useDocument((s) => s.history.document.view);
  const isCut = cropping || bare;
  const drawFrame = isCut
    ? frameDrawer(picture, filter)
    : withRoom(view, frameDrawer(picture, filter));
  const room = useMemo(
    () =>
      isCut || !view.room || view.shape ? null : { crop: view.crop, colour: view.room.colour },
    [isCut, view],
  );
  const fine = useAtRest(camera);
  const settled = useAtRest(marks);
  const paint = (context: Konva.Context) => {
    // konva wraps the canvas; the painter needs the real one, for the same pixels as everywhere.
    const target = context._context;
    const several = live.length > 1;
    const moved = new Set(live.map((mark) => mark.id));
    const sight = {
      picture,
      filter,
      drawFrame,
      marks: several ? marks.filter((mark) => !moved.has(mark.id)) : marks,
      view: shown,
      room,
      shape,
      turn,
      pictures,
      camera,
      ...size,
      dots: window.devicePixelRatio,
      active: several ? null : (editing ?? live[0]?.id ?? null),
      tools: {
        shaper,
        bitmap,
        sheet,
        sight: { scale: camera.scale * window.devicePixelRatio, seen: seenBy(camera, size) },
      },
      fine,
      settled,
    };
    painter.paint(target, sight, editing ? [] : live);
  };
  const layer = useRef<Konva.Layer>(null);
  useEffect(() => {
    const canvas = layer.current?.getNativeCanvasElement();
    if (canvas) canvas.style.filter = over;
  }, [over]);
  return (
    <Layer listening={false} ref={layer}>
      <Shape sceneFunc={paint} />
    </Layer>
  );
}

/** True once a value has not changed for a moment. */
function useAtRest(value: unknown): boolean {
  const [rested, setRested] = useState<unknown>(null);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), REST);
    return () => clearTimeout(timer);
  }, [value]);
  return rested === value;
}
