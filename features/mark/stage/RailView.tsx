import type { KonvaEventObject } from 'konva/lib/Node';
import { useRef } from 'react';
import { Circle, Group, Line, Rect } from 'react-konva';
import { ontoRail, railCentre, snappedAngle, type Rail } from '@/core/geometry/rail';
import type { Point } from '@/core/geometry/point';
import { toFrame, toScreen, type Camera } from '../session/camera';
import { pressOther } from '../gestures/hand';
import { setRail, turnRail } from '../fit/rail';
import { useTool } from '../session/tool';
import { themeColour } from './theme';

const HALF = 230;
const HANDLE = 150;
const BAND = 34;

/** Points along the edge, in pixels of the screen from its middle. */
function courseOf(rail: Rail, camera: Camera): Point[] {
  const reach = HALF / camera.scale;
  const rad = (rail.angle * Math.PI) / 180;
  const u = { x: Math.cos(rad), y: Math.sin(rad) };
  const straight = (d: number): Point => ({ x: rail.at.x + u.x * d, y: rail.at.y + u.y * d });
  if (!railCentre(rail)) return [straight(-reach), straight(reach)];
  return Array.from({ length: 41 }, (_, i) => ontoRail(rail, straight(reach * (i / 20 - 1))));
}

/**
 * The rail over the picture: it is moved by its grip, turned by its handle or the wheel. Its body is
 * moved by Grab alone: with a tool that draws, a stroke may begin on it.
 */
export function RailView({ camera }: { camera: Camera }) {
  const rail = useTool((s) => s.rail);
  const from = useRef<{ at: Point; start: Point } | null>(null);
  const grab = useTool((s) => s.tool === 'grab') || undefined;
  if (!rail) return null;
  const hold = (event: KonvaEventObject<PointerEvent>) => {
    const start = event.target.getStage()?.getPointerPosition() ?? { x: 0, y: 0 };
    from.current = { at: rail.at, start };
    pressOther(({ x, y }) => {
      const held = from.current;
      if (!held) return;
      setRail({
        at: {
          x: held.at.x + (x - held.start.x) / camera.scale,
          y: held.at.y + (y - held.start.y) / camera.scale,
        },
      });
    });
  };
  const petrol = themeColour('petrol');
  const card = themeColour('card');
  const course = courseOf(rail, camera).map((p) => toScreen(camera, p));
  const middle = toScreen(camera, rail.at);
  const rad = (rail.angle * Math.PI) / 180;
  const handle = {
    x: middle.x + Math.cos(rad) * HANDLE - Math.sin(rad) * BAND,
    y: middle.y + Math.sin(rad) * HANDLE + Math.cos(rad) * BAND,
  };
  const grip = {
    x: middle.x - (Math.sin(rad) * BAND) / 2,
    y: middle.y + (Math.cos(rad) * BAND) / 2,
  };
  const side = course.map((p) => ({
    x: p.x - Math.sin(rad) * BAND,
    y: p.y + Math.cos(rad) * BAND,
  }));
  const flat = (points: readonly Point[]) => points.flatMap(({ x, y }) => [x, y]);
  return (
    <Group>
      <Line
        points={flat([...course, ...[...side].reverse()])}
        closed
        fill={petrol}
        opacity={0.16}
        onPointerDown={grab && hold}
        onWheel={(event) => {
          event.evt.stopPropagation();
          turnRail((event.evt.deltaY > 0 ? 1 : -1) * (event.evt.shiftKey ? 15 : 1));
        }}
      />
      <Line points={flat(course)} stroke={petrol} strokeWidth={1.5} listening={false} />
      <Group name="rail-grip" x={grip.x} y={grip.y} rotation={rail.angle} onPointerDown={hold}>
        <Rect
          x={-18}
          y={-7}
          width={36}
          height={14}
          cornerRadius={7}
          fill={card}
          stroke={petrol}
          strokeWidth={2}
        />
        {[-7, 0, 7].map((x) => (
          <Circle key={x} x={x} radius={1.6} fill={petrol} />
        ))}
      </Group>
      <Circle
        {...handle}
        radius={6}
        hitStrokeWidth={14}
        fill={card}
        stroke={petrol}
        strokeWidth={2}
        onPointerDown={() => {
          pressOther((screen) => {
            const p = toFrame(camera, screen);
            const angle = (Math.atan2(p.y - rail.at.y, p.x - rail.at.x) * 180) / Math.PI;
            const lean = (Math.atan2(BAND, HANDLE) * 180) / Math.PI;
            setRail({ angle: snappedAngle(angle - lean) });
          });
        }}
      />
    </Group>
  );
}
