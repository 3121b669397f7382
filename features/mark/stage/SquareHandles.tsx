import { Circle, Line } from 'react-konva';
import { toScreen, type Camera } from '../session/camera';
import { pressSquare } from '../gestures/hand';
import { useLive } from '../session/live';
import { themeColour } from './theme';

/** The four corners that are pulled square, on the frame. */
export function SquareHandles({ camera }: { camera: Camera }) {
  const quad = useLive((s) => s.squaring);
  if (!quad) return null;
  const petrol = themeColour('petrol');
  const places = quad.map((p) => toScreen(camera, p));
  const line = { points: places.flatMap((p) => [p.x, p.y]), closed: true, listening: false };
  return (
    <>
      <Line {...line} stroke={themeColour('card')} strokeWidth={4} />
      <Line {...line} stroke={petrol} strokeWidth={2} />
      {places.map((at, i) => (
        <Circle
          key={i}
          {...at}
          radius={8}
          hitStrokeWidth={16}
          fill={themeColour('card')}
          stroke={petrol}
          strokeWidth={2.5}
          onPointerDown={(event) => {
            if (event.evt.button === 0) pressSquare(i);
          }}
        />
      ))}
    </>
  );
}
