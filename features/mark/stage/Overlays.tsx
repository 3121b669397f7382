import { Circle, Line, Rect as KonvaRect } from 'react-konva';
import { toScreen, type Camera } from '../session/camera';
import { usePrivate } from '../recognise/privateStore';
import { useLive } from '../session/live';
import { themeColour } from './theme';

/** What is drawn over the picture while a tool is used: the frame of a selection, a measure, corners. */
export function Overlays({ camera }: { camera: Camera }) {
  const marquee = useLive((s) => s.marquee);
  const measured = useLive((s) => s.measured);
  const guides = useLive((s) => s.guides);
  const corners = useLive((s) => s.corners);
  const { search } = usePrivate();
  const petrol = themeColour('petrol');
  const card = themeColour('card');
  return (
    <>
      {marquee && (
        <KonvaRect
          {...toScreen(camera, marquee)}
          width={marquee.width * camera.scale}
          height={marquee.height * camera.scale}
          stroke={petrol}
          strokeWidth={1}
          dash={[5, 3]}
          listening={false}
        />
      )}
      {guides.map(({ axis, at }) => {
        const p = toScreen(camera, { x: at, y: at });
        const points = axis === 'x' ? [p.x, 0, p.x, 10_000] : [0, p.y, 10_000, p.y];
        return (
          <Line
            key={axis}
            points={points}
            stroke={petrol}
            strokeWidth={1}
            dash={[2, 3]}
            listening={false}
          />
        );
      })}
      {search.name === 'found' &&
        search.things.map(({ box }, i) => (
          <KonvaRect
            key={i}
            {...toScreen(camera, box)}
            width={box.width * camera.scale}
            height={box.height * camera.scale}
            stroke={petrol}
            strokeWidth={search.chosen.has(i) ? 2.5 : 1}
            dash={search.chosen.has(i) ? [] : [4, 3]}
            listening={false}
          />
        ))}
      {measured && (
        <Line
          points={measured.flatMap((p) => {
            const at = toScreen(camera, p);
            return [at.x, at.y];
          })}
          stroke={petrol}
          strokeWidth={2}
          listening={false}
        />
      )}
      {corners.map((corner, i) => (
        <Circle
          key={i}
          {...toScreen(camera, corner)}
          radius={4}
          fill={card}
          stroke={petrol}
          strokeWidth={2}
          listening={false}
        />
      ))}
    </>
  );
}
