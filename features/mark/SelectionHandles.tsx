import { Circle, Rect as KonvaRect } from 'react-konva';
import { kindOf } from '@/core/marks/registry';
import { markById } from './actions';
import { toScreen, type Camera } from './camera';
import { pressHandle } from './gesture';
import { shownMarks, useSession } from './session';
import { themeColour } from './theme';

/** A thin outline around each selected mark, and the handles of a single one. */
export function SelectionHandles({ camera }: { camera: Camera }) {
  const selection = useSession((s) => s.selection);
  const editing = useSession((s) => s.editing);
  const live = useSession((s) => s.live);
  const history = useSession((s) => s.history);
  const shaper = useSession((s) => s.shaper);
  const chosen = shownMarks({ history, live }).filter((mark) => selection.includes(mark.id));
  const petrol = themeColour('petrol');
  const card = themeColour('card');
  const only = chosen.length === 1 && !editing ? chosen[0] : undefined;
  return (
    <>
      {chosen.map((mark) => {
        const r = kindOf(mark).bounds(mark, { shaper });
        const at = toScreen(camera, r);
        return (
          <KonvaRect
            key={mark.id}
            x={at.x}
            y={at.y}
            width={r.width * camera.scale}
            height={r.height * camera.scale}
            stroke={petrol}
            strokeWidth={1}
            dash={[4, 3]}
            listening={false}
          />
        );
      })}
      {only &&
        !only.locked &&
        kindOf(only)
          .handles(only, { shaper })
          .map((handle) => {
            const at = toScreen(camera, handle.at);
            return (
              <Circle
                key={handle.id}
                x={at.x}
                y={at.y}
                radius={5}
                hitStrokeWidth={14}
                fill={handle.role === 'bend' ? petrol : card}
                stroke={handle.role === 'bend' ? card : petrol}
                strokeWidth={2}
                onPointerDown={(event) => {
                  const stored = markById(only.id);
                  if (stored && event.evt.button === 0) pressHandle(stored, handle.id);
                }}
              />
            );
          })}
    </>
  );
}
