import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Rect } from '@/core/geometry/rect';
import {
  findWindow,
  stepWindow,
  visiblePart,
  windowPlace,
  windowsAt,
} from '@/core/region/windowChoice';
import { Toggle } from '../../ui/Toggle';
import { classes } from '../../ui/classes';
import { changeWay, useSettings } from '../../settings/settingsStore';
import type { StillWindow } from '../sources/contract';
import { chooseWindow } from '../atOnce';
import { verbOf } from '../kinds';
import { useTake, type Choosing } from '../takeState';
import { choose } from '../takeStore';
import { Footer, Said } from './Footer';
import { Outline } from './Outline';
import { StillPicture } from './StillPicture';
import { useEveryKey } from '../../keys/useKey';

/** Letters typed within this long belong together. */
const PAUSE = 1200;

/** Windows of a source that knows none: the large parts of its picture. */
const asWindows = (parts: readonly Rect[], frame: Rect): StillWindow[] =>
  parts
    .filter(
      (r) => r.width >= 160 && r.height >= 90 && r.width * r.height < frame.width * frame.height,
    )
    .map((bounds, i) => ({
      id: i + 1,
      title: `Window of ${bounds.width} × ${bounds.height}`,
      type: 'window',
      bounds,
    }));

/** A window under the pointer, by steps, by its title or from the small pictures. */
export function WindowMode({ choosing, parts }: { choosing: Choosing; parts: readonly Rect[] }) {
  const { stilled } = choosing;
  const { picture } = stilled;
  const windows = useMemo(
    () =>
      stilled.windows ??
      asWindows(parts, { x: 0, y: 0, width: picture.width, height: picture.height }),
    [stilled, parts, picture],
  );
  const look = useSettings((s) => s.settings.way);
  const [chosen, setChosen] = useState<number | null>(stilled.focused);
  const typed = useRef({ letters: '', at: 0 });
  const current = windows.find((w) => w.id === chosen) ?? windows.at(-1);
  const take = useCallback(
    (window: StillWindow | undefined) => {
      if (!window) return;
      try {
        const choice = chooseWindow(stilled, look, window);
        choose(stilled.windows ? choice : { crop: choice.crop });
      } catch (error) {
        useTake.setState({ problem: error instanceof Error ? error.message : String(error) });
      }
    },
    [stilled, look],
  );
  useEveryKey(
    useCallback(
      (event) => {
        const { key } = event;
        if (key === 'Enter') {
          take(current);
          return true;
        }
        const back = key === 'ArrowLeft' || key === 'ArrowUp' || (key === 'Tab' && event.shiftKey);
        const on =
          key === 'ArrowRight' || key === 'ArrowDown' || (key === 'Tab' && !event.shiftKey);
        if (back || on) {
          setChosen(stepWindow(windows, current?.id ?? null, back ? -1 : 1)?.id ?? null);
          return true;
        }
        if (key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return false;
        const now = event.timeStamp;
        const going = now - typed.current.at < PAUSE;
        // A digit that begins nothing is a kind's number.
        if (!going && /[\d\s?]/.test(key)) return false;
        typed.current = { letters: (going ? typed.current.letters : '') + key, at: now };
        const found = findWindow(windows, typed.current.letters);
        if (found) setChosen(found.id);
        return true;
      },
      [windows, current, take],
    ),
  );
  return (
    <>
      <div className="flex min-h-0 grow gap-3">
        <StillPicture
          picture={picture}
          pixelView={false}
          cursor={() => 'pointer'}
          onMove={({ at }) => {
            const under = windowsAt(windows, at);
            if (under[0] && !under.some((w) => w.id === chosen)) setChosen(under[0].id);
            else if (under[0] && at !== null && under[0].id !== chosen && under.length === 1) {
              setChosen(under[0].id);
            }
          }}
          onUp={({ at }) => {
            const under = windowsAt(windows, at);
            take(under.find((w) => w.id === chosen) ?? under[0]);
          }}
          onWheel={(step) => setChosen(stepWindow(windows, current?.id ?? null, step)?.id ?? null)}
          overlay={(scale) => (
            <Outline
              region={current ? visiblePart(windowPlace(current, look), picture) : null}
              frame={picture}
              scale={scale}
              label={current && nameOf(current, look)}
            />
          )}
        />
        <SmallPictures
          picture={picture}
          windows={windows}
          current={current?.id ?? null}
          onPoint={setChosen}
          onTake={take}
        />
      </div>
      <Footer
        take={`${verbOf(choosing.way)} this window`}
        disabled={!current}
        onTake={() => take(current)}
      >
        {stilled.windows && (
          <Toggle
            label="With its border"
            checked={look.border}
            onChange={(border) => changeWay({ border })}
          />
        )}
        <Said label="Window">
          {current ? nameOf(current, look) : 'No window was found on this picture.'}
        </Said>
      </Footer>
    </>
  );
}

function nameOf(window: StillWindow, look: { border: boolean; margin: number }): string {
  const place = windowPlace(window, look);
  const name = `${window.title} · ${place.width} × ${place.height} px`;
  // First, since the end of a long title is cut off.
  return window.visibleOnly ? `Visible part only · ${name}` : name;
}

interface SmallProps {
  picture: ImageBitmap;
  windows: readonly StillWindow[];
  current: number | null;
  onPoint: (id: number) => void;
  onTake: (window: StillWindow) => void;
}

/** All windows as small pictures, the front one first. */
function SmallPictures({ picture, windows, current, onPoint, onTake }: SmallProps) {
  return (
    <ul
      aria-label="Windows"
      className="flex w-[172px] shrink-0 flex-col gap-2 overflow-y-auto p-0.5 max-[1180px]:hidden"
    >
      {[...windows].reverse().map((window) => (
        <li key={window.id}>
          <button
            type="button"
            aria-pressed={window.id === current}
            title={window.title}
            onFocus={() => onPoint(window.id)}
            onPointerEnter={() => onPoint(window.id)}
            onClick={() => onTake(window)}
            className={classes(
              'block w-full rounded-[6px] border bg-card p-1 text-left',
              window.id === current ? 'border-petrol ring-2 ring-petrol' : 'border-edge',
            )}
          >
            <Small picture={picture} place={window.frameBounds ?? window.bounds} />
            <span className="block truncate px-1 text-[13px]">{window.title}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function Small({ picture, place }: { picture: ImageBitmap; place: Rect }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const part = visiblePart(place, picture);
  useEffect(() => {
    const element = canvas.current;
    const surface = element?.getContext('2d');
    if (!element || !surface || !part) return;
    const scale = Math.min(152 / part.width, 84 / part.height, 1);
    element.width = Math.max(1, Math.round(part.width * scale));
    element.height = Math.max(1, Math.round(part.height * scale));
    surface.imageSmoothingQuality = 'high';
    const { x, y, width, height } = part;
    surface.drawImage(picture, x, y, width, height, 0, 0, element.width, element.height);
  }, [picture, part]);
  return <canvas ref={canvas} aria-hidden className="mx-auto block max-h-[84px]" />;
}
