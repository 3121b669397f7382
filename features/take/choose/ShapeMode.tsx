import { useCallback, useState } from 'react';
import type { Rect } from '@/core/geometry/rect';
import { shapeNames, type ShapeName } from '@/core/contracts/way';
import {
  closeShape,
  dragShape,
  moveShape,
  noShape,
  pressShape,
  releaseShape,
  shapeView,
  takeBack,
  type FreeShape,
} from '@/core/region/freeShape';
import { arrowStep, isArrow } from '@/core/region/selection';
import { chosenLook, classes } from '../../ui/classes';
import { Radio, Radios } from '../../ui/Radios';
import { changeWay, useSettings } from '../../settings/settingsStore';
import { verbOf } from '../kinds';
import type { Choosing } from '../takeState';
import { choose } from '../takeStore';
import { Footer, Said } from './Footer';
import { Grip, Outline } from './Outline';
import { RegionMode } from './RegionMode';
import { StillPicture } from './StillPicture';
import { useEveryKey } from '../../keys/useKey';

const labels: Record<ShapeName, string> = { loop: 'Loop', polygon: 'Polygon', oval: 'Oval' };

const hints: Record<ShapeName, string> = {
  loop: 'Draw around it. Drawing back over the line takes it back.',
  polygon: 'Click the corners; double-click or Enter closes. Backspace takes one back.',
  oval: 'Drag it open, then adjust it like a region.',
};

/** A free shape: a loop by hand, a polygon by clicks, an oval. */
export function ShapeMode({ choosing, parts }: { choosing: Choosing; parts: readonly Rect[] }) {
  const shape = useSettings((s) => s.settings.way.shape);
  return (
    <>
      <div className="mb-2 flex items-center gap-2">
        <Radios
          label="Shape"
          value={shape}
          className="flex gap-1.5"
          onChange={(name) => changeWay({ shape: name })}
        >
          {shapeNames.map((name) => (
            <Radio
              key={name}
              value={name}
              className={classes(
                'h-7 rounded-full border px-3 text-[13px]',
                chosenLook(name === shape),
              )}
            >
              {labels[name]}
            </Radio>
          ))}
        </Radios>
        <p className="text-[13px] text-soft">{hints[shape]}</p>
      </div>
      {shape === 'oval' ? (
        <RegionMode choosing={choosing} parts={parts} oval />
      ) : (
        <Drawn key={shape} choosing={choosing} kind={shape} />
      )}
    </>
  );
}

function Drawn({ choosing, kind }: { choosing: Choosing; kind: FreeShape['kind'] }) {
  const { picture } = choosing.stilled;
  const [shape, setShape] = useState(() =>
    noShape({ width: picture.width, height: picture.height }, kind),
  );
  const view = shapeView(shape);
  const take = useCallback(() => {
    const closed = shape.closed ? shape : closeShape(shape);
    const chosen = shapeView(closed);
    if (!chosen) return;
    if (shape.closed || choosing.way.atOnce) choose(chosen);
    else setShape(closed);
  }, [shape, choosing]);
  useEveryKey(
    useCallback(
      (event) => {
        if (event.key === 'Enter') take();
        else if (event.key === 'Backspace') setShape(takeBack);
        else if (isArrow(event.key) && shape.points.length > 0) {
          const by = arrowStep(event.key, event.shiftKey ? 10 : 1);
          setShape((s) => moveShape(s, by));
        } else return false;
        return true;
      },
      [take, shape.points.length],
    ),
  );
  const up = () => {
    const wasDrawn = shape.drag?.kind === 'draw';
    const next = releaseShape(shape);
    setShape(next);
    const chosen = shapeView(next);
    if (wasDrawn && chosen && choosing.way.atOnce) choose(chosen);
  };
  return (
    <>
      <StillPicture
        picture={picture}
        onDown={({ at, reach }) => setShape((s) => pressShape(s, at, reach))}
        onMove={({ at, reach }) => setShape((s) => dragShape(s, at, reach))}
        onUp={up}
        onDouble={() => setShape((s) => (s.closed ? s : closeShape(s)))}
        overlay={(scale, at) => <ShapeOutline shape={shape} scale={scale} at={at} />}
      />
      <Footer
        take={`${verbOf(choosing.way)} this shape`}
        disabled={shape.points.length < 3}
        onTake={take}
      >
        <Said label="Size of the shape">
          {view
            ? `${view.crop.width} × ${view.crop.height} px`
            : shape.points.length > 0
              ? `${shape.points.length} points`
              : 'no shape yet'}
        </Said>
      </Footer>
    </>
  );
}

interface OutlineProps {
  shape: FreeShape;
  scale: number;
  at: { x: number; y: number } | null;
}

function ShapeOutline({ shape, scale, at }: OutlineProps) {
  const places = shape.points.map((p) => ({ x: p.x * scale, y: p.y * scale }));
  const path = places.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join('');
  const view = shapeView(shape);
  const grips = shape.kind === 'polygon' || places.length <= 60;
  const rubber =
    shape.kind === 'polygon' && !shape.closed && at ? `L${at.x * scale} ${at.y * scale}` : '';
  return (
    <Outline
      region={view?.crop ?? null}
      path={`${path}Z`}
      frame={shape.frame}
      scale={scale}
      label={view ? `${view.crop.width} × ${view.crop.height}` : undefined}
    >
      {!shape.closed && path && (
        <>
          <path d={path + rubber} fill="none" className="stroke-ink" strokeWidth={3.5} />
          <path d={path + rubber} fill="none" className="stroke-saffron" strokeWidth={2} />
        </>
      )}
      {grips &&
        (shape.closed || shape.kind === 'polygon') &&
        places.map((p, i) => <Grip key={i} at={p} />)}
    </Outline>
  );
}
