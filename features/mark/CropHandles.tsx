import { Circle, Rect as KonvaRect } from 'react-konva';
import { gripPoint, grips } from '@/core/geometry/resize';
import { bottom, right, type Rect } from '@/core/geometry/rect';
import { toFrame, toScreen, type Camera } from './camera';
import { pressCrop } from './gesture';
import { useSession } from './session';
import { themeColour } from './theme';

/** While Crop is in hand: what will be outside is dim, and the view has handles. */
export function CropHandles({ camera }: { camera: Camera }) {
  const crop = useSession((s) => s.cropping);
  const picture = useSession((s) => s.picture);
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
        onPointerDown={(event) => {
          const at = event.target.getStage()?.getPointerPosition();
          if (at && event.evt.button === 0) pressCrop('move', toFrame(camera, at));
        }}
      />
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
