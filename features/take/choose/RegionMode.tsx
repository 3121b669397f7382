import { useCallback, useMemo, useState } from 'react';
import type { Point } from '@/core/geometry/point';
import { centre, type Rect } from '@/core/geometry/rect';
import { gripPoint, grips } from '@/core/geometry/resize';
import {
  dragTo,
  gripAt,
  isArrow,
  nothingChosen,
  nudge,
  ofSize,
  press,
  release,
  typeNumber,
  type Selection,
} from '@/core/region/selection';
import { snapTo } from '@/core/region/snap';
import { visiblePart } from '@/core/region/windowChoice';
import { Button } from '../../ui/Button';
import { NumberInput } from '../../ui/NumberInput';
import { useSettings } from '../../settings/settingsStore';
import { verbOf } from '../kinds';
import type { Choosing } from '../takeState';
import { choose } from '../takeStore';
import { Footer, Said } from './Footer';
import { Grip, Outline, scaled } from './Outline';
import { StillPicture, type Touch } from './StillPicture';
import { useEveryKey } from '../../keys/useKey';

const fields = { x: 'Left', y: 'Top', width: 'Width', height: 'Height' } as const;

interface Props {
  choosing: Pick<Choosing, 'way' | 'stilled'>;
  /** Edges that a drag is drawn to, softly. */
  parts: readonly Rect[];
  /** The oval that fills the region, instead of the region itself. */
  oval?: boolean;
  /** What is done with it, where it is not taken. */
  instead?: { verb: string; act: (crop: Rect) => void; leave: () => void };
}

/** A rectangle, or the oval in it: by drag, by keys, by numbers. */
export function RegionMode({ choosing, parts, oval = false, instead }: Props) {
  const { picture } = choosing.stilled;
  const { width, height } = picture;
  const [selection, setSelection] = useState<Selection>(() => begun(choosing, oval));
  const [pointer, setPointer] = useState<Point | null>(null);
  const last = useSettings((s) => s.settings.regions[choosing.way.source]?.region);
  const { region } = selection;
  const whole = useMemo(() => ({ x: 0, y: 0, width, height }), [width, height]);
  const take = useCallback(
    (crop: Rect) => {
      if (instead) instead.act(crop);
      else choose(oval ? { crop, shape: { kind: 'oval' } } : { crop });
    },
    [oval, instead],
  );
  useEveryKey(
    useCallback(
      (event) => {
        const { key } = event;
        if (isArrow(key)) {
          setSelection((s) => nudge(s, key, event.shiftKey ? 10 : 1, event.altKey));
          return true;
        }
        if (key === 'Escape' && instead) {
          instead.leave();
          return true;
        }
        if (key !== 'Enter') return false;
        take(region ?? whole);
        return true;
      },
      [region, take, whole, instead],
    ),
  );
  const down = ({ at, reach, event }: Touch) => {
    const snap = event.altKey || parts.length === 0 ? undefined : snapTo(parts, reach);
    setSelection((s) => press(s, at, reach, snap));
  };
  const move = ({ at, reach, event }: Touch) => {
    setPointer(at);
    const snap = event.altKey || parts.length === 0 ? undefined : snapTo(parts, reach * 0.7);
    const hold = { ratio: event.shiftKey, centre: event.ctrlKey || event.metaKey, snap };
    setSelection((s) => dragTo(s, at, hold));
  };
  const up = () => {
    const drawn = selection.drag?.kind === 'draw' && selection.region;
    setSelection(release);
    if (drawn && choosing.way.atOnce) take(drawn);
  };
  return (
    <>
      <StillPicture
        picture={picture}
        cursor={(touch) => {
          const grip = touch && gripAt(selection, touch.at, touch.reach);
          return grip ? `${grip}-resize` : 'crosshair';
        }}
        onDown={down}
        onMove={move}
        onUp={up}
        follow={selection.drag ? null : region}
        overlay={(scale) => <RegionOutline selection={selection} scale={scale} oval={oval} />}
      />
      <Footer
        take={instead?.verb ?? `${verbOf(choosing.way)} ${words(region, oval)}`}
        onTake={() => take(region ?? whole)}
        onLeave={instead?.leave}
      >
        {(['x', 'y', 'width', 'height'] as const).map((field) => (
          <NumberInput
            key={field}
            label={fields[field]}
            value={region?.[field] ?? 0}
            onCommit={(value) => setSelection((s) => typeNumber(s, field, value))}
          />
        ))}
        {last && (
          <Button
            disabled={region !== null}
            onClick={() => setSelection((s) => ofSize(s, last, pointer ?? centre(whole)))}
          >
            Last {last.width} × {last.height}
          </Button>
        )}
        <Said label="Size of the region">
          {region ? `${region.width} × ${region.height} px` : 'no region yet'}
        </Said>
      </Footer>
    </>
  );
}

const words = (region: Rect | null, oval: boolean): string =>
  region ? (oval ? 'this oval' : 'this region') : 'all of it';

/** Nothing chosen, or the last place with its handles, where the way begins with that. */
function begun({ way, stilled }: Props['choosing'], oval: boolean): Selection {
  const { picture, origin } = stilled;
  const nothing = nothingChosen({ width: picture.width, height: picture.height });
  const last = useSettings.getState().settings.regions[way.source]?.region;
  if (oval || !way.fromLast || !last) return nothing;
  const place = { ...last, x: last.x - origin.x, y: last.y - origin.y };
  return { ...nothing, region: visiblePart(place, picture) };
}

function RegionOutline(props: { selection: Selection; scale: number; oval: boolean }) {
  const { selection, scale, oval } = props;
  const { region, frame } = selection;
  const r = region && scaled(region, scale);
  return (
    <Outline
      region={region}
      path={r && oval ? ovalOutline(r) : undefined}
      frame={frame}
      scale={scale}
      label={region ? `${region.width} × ${region.height}` : undefined}
    >
      {r && grips.map((grip) => <Grip key={grip} at={gripPoint(r, grip)} />)}
    </Outline>
  );
}

function ovalOutline(r: Rect): string {
  const [rx, ry] = [r.width / 2, r.height / 2];
  return `M${r.x} ${r.y + ry}a${rx} ${ry} 0 1 0 ${r.width} 0a${rx} ${ry} 0 1 0 ${-r.width} 0Z`;
}
