import { Circle, Line, Rect as KonvaRect, Shape } from 'react-konva';
import type { Point } from '@/core/geometry/point';
import { isSeenAt } from '@/core/document/atPicture';
import type { Rect } from '@/core/geometry/rect';
import { CUT } from '@/core/marks/piece/kind';
import type { Handle } from '@/core/marks/contract';
import { kindOf, markBounds, picturesOf, type Mark } from '@/core/marks/registry';
import { markById, marks as storedMarks } from '../session/select';
import { toScreen, type Camera } from '../session/camera';
import { pressGroup, pressHandle } from '../gestures/hand';
import { groupHandles, groupOf, tooSmallForHandles } from '../actions/group';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { shownMarks } from '../session/session';
import { themeColour } from './theme';

/** How far the handle for turning stands off, pixels of the screen. */
const AWAY = 24;

/** A thin outline around each selected mark, and the handles of one or of all together. */
export function SelectionHandles({ camera }: { camera: Camera }) {
  const selection = useTool((s) => s.selection);
  const editing = useTool((s) => s.editing);
  const live = useLive((s) => s.live);
  const history = useDocument((s) => s.history);
  const shaper = useDocument((s) => s.shaper);
  const ids = new Set(selection);
  const moment = useDocument((s) => s.moment);
  const chosen = shownMarks({ history, live }).filter(
    (mark) => ids.has(mark.id) && (!moment || isSeenAt(mark, moment.picture)),
  );
  const only = chosen.length === 1 && !editing ? chosen[0] : undefined;
  return (
    <>
      <Frames camera={camera} all={chosen.map((mark) => markBounds(mark, { shaper }))} />
      {only && !only.locked && <OneMark mark={only} camera={camera} />}
      {chosen.length > 1 && <Together chosen={chosen} camera={camera} />}
    </>
  );
}

/** Thin outlines, as one shape: five hundred of them would each be asked for what it is. */
function Frames({ camera, all }: { camera: Camera; all: readonly Rect[] }) {
  return (
    <Shape
      stroke={themeColour('petrol')}
      strokeWidth={1}
      dash={[4, 3]}
      listening={false}
      sceneFunc={(context, shape) => {
        context.beginPath();
        for (const r of all) {
          const at = toScreen(camera, r);
          context.rect(at.x, at.y, r.width * camera.scale, r.height * camera.scale);
        }
        context.strokeShape(shape);
      }}
    />
  );
}

function Frame({ camera, r }: { camera: Camera; r: Rect }) {
  const at = toScreen(camera, r);
  return (
    <KonvaRect
      x={at.x}
      y={at.y}
      width={r.width * camera.scale}
      height={r.height * camera.scale}
      stroke={themeColour('petrol')}
      strokeWidth={1.5}
      listening={false}
    />
  );
}

function OneMark({ mark, camera }: { mark: Mark; camera: Camera }) {
  const shaper = useDocument((s) => s.shaper);
  const cutting = useTool((s) => s.cutting) && picturesOf(mark).length > 0;
  const handles = kindOf(mark)
    .handles(mark, { shaper })
    .filter((handle) => !cutting || handle.role !== 'turn');
  return handles.map((handle) => (
    <Grip
      key={handle.id}
      handle={handle}
      camera={camera}
      filled={handle.role === 'bend' || cutting}
      onPress={() => {
        const stored = markById(mark.id);
        if (stored) pressHandle(stored, cutting ? `${CUT}${handle.id}` : handle.id);
      }}
    />
  ));
}

/** The box around several marks, which are sized and turned as one. */
function Together({ chosen, camera }: { chosen: readonly Mark[]; camera: Camera }) {
  const group = groupOf(chosen);
  if (tooSmallForHandles(group.box, camera.scale)) return null;
  const ids = new Set(chosen.map((mark) => mark.id));
  return (
    <>
      <Frame camera={camera} r={group.box} />
      {groupHandles(group).map((handle) => (
        <Grip
          key={handle.id}
          handle={handle}
          camera={camera}
          onPress={() => {
            const held = storedMarks().filter((mark) => ids.has(mark.id) && !mark.locked);
            pressGroup(held, handle.id);
          }}
        />
      ))}
    </>
  );
}

interface GripProps {
  handle: Handle;
  camera: Camera;
  filled?: boolean;
  onPress: () => void;
}

function Grip({ handle, camera, filled = false, onPress }: GripProps) {
  const base = toScreen(camera, handle.at);
  const { away } = handle;
  const at: Point = away ? { x: base.x + away.x * AWAY, y: base.y + away.y * AWAY } : base;
  const petrol = themeColour('petrol');
  const card = themeColour('card');
  return (
    <>
      {away && (
        <Line
          points={[base.x, base.y, at.x, at.y]}
          stroke={petrol}
          strokeWidth={1}
          listening={false}
        />
      )}
      <Circle
        x={at.x}
        y={at.y}
        radius={handle.role === 'turn' ? 6 : 5}
        hitStrokeWidth={14}
        fill={filled ? petrol : handle.role === 'turn' ? themeColour('saffron') : card}
        stroke={filled ? card : petrol}
        strokeWidth={2}
        onPointerDown={(event) => {
          if (event.evt.button === 0) onPress();
        }}
      />
    </>
  );
}
