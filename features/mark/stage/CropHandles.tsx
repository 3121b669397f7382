import { Circle, Line, Rect as KonvaRect } from 'react-konva';
import { gripPoint, grips } from '@/core/geometry/resize';
import { bottom, right, type Rect } from '@/core/geometry/rect';
import { toFrame, toScreen, type Camera } from '../session/camera';
import { pressCrop, pressShapePoint } from '../gestures/hand';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { themeColour } from './theme';

/** While Crop is in hand: what will be outside is dim, and the view has handles. */
export function CropHandles({ camera }: { camera: Camera }) {
  const crop = useLive((s) => s.cropping);
  const picture = useDocument((s) => s.picture);
  const drawn = useLive((s) => s.cropDrawn);
  if (!crop) return null;
  const place = (r: Rect) => ({
    ...toScreen(camera, r),
    width: r.width * camera.scale,
    height: r.height * camera.scale,
  });
  const { width, height } = picture;
  const outside: Rect[] = [
    { x: 0, y: 0, width, height: crop.y },
    { x: 0, y: bottom(crop), width, height: height - bottom(crop) },
    { x: 0, y: crop.y, width: crop.x, height: crop.height },
    { x: right(crop), y: crop.y, width: width - right(crop), height: crop.height },
  ];
  const petrol = themeColour('petrol');
  return (
    <>
      {outside.map((r, i) => (
        <KonvaRect key={i} {...place(r)} fill="#1C2B2A" opacity={0.55} listening={false} />
      ))}
      <KonvaRect
        {...place(crop)}
        stroke={petrol}
        strokeWidth={2}
        fill="transparent"
        // Until one is drawn, a press inside draws it.
        listening={drawn}
        onPointerDown={(event) => {
          const at = event.target.getStage()?.getPointerPosition();
          if (at && event.evt.button === 0) pressCrop('move', toFrame(camera, at));
        }}
      />
      <ShapePoints camera={camera} />
      {grips.map((grip) => {
        const at = toScreen(camera, gripPoint(crop, grip));
        return (
          <Circle
            key={grip}
            {...at}
            radius={6}
            hitStrokeWidth={16}
            fill={themeColour('card')}
            stroke={petrol}
            strokeWidth={2}
            onPointerDown={(event) => {
              event.cancelBubble = true;
              if (event.evt.button === 0) pressCrop(grip, gripPoint(crop, grip));
            }}
          />
        );
      })}
    </>
  );
}

/** With more points than this, single ones are too close to be meant. */
const MOST_POINTS = 200;

/** The corners of a free shape, each of which can be dragged. */
function ShapePoints({ camera }: { camera: Camera }) {
  const shape = useDocument((s) => s.history.document.view.shape);
  if (shape?.kind !== 'polygon') return null;
  const places = shape.points.map((p) => toScreen(camera, p));
  const petrol = themeColour('petrol');
  return (
    <>
      <Line
        points={places.flatMap((p) => [p.x, p.y])}
        closed
        stroke={petrol}
        strokeWidth={1.5}
        dash={[6, 4]}
        listening={false}
      />
      {places.length <= MOST_POINTS &&
        places.map((at, i) => (
          <Circle
            key={i}
            {...at}
            radius={5}
            hitStrokeWidth={12}
            fill={themeColour('saffron')}
            stroke={petrol}
            strokeWidth={1.5}
            onPointerDown={(event) => {
              event.cancelBubble = true;
              if (event.evt.button === 0) pressShapePoint(i);
            }}
          />
        ))}
    </>
  );
}
