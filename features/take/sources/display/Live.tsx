import { useEffect, useState } from 'react';
import { isShown, type DisplayAnswer, type ScreenWindow } from '@/core/contracts/display';
import { fitScale, type Rect } from '@/core/geometry/rect';
import { messageOf } from '../../../api/ask';
import { Button } from '../../../ui/Button';
import { useSize } from '../../../ui/useSize';
import { DisplayMap } from '../DisplayMap';
import { changeSettings, changeWay, useSettings } from '../../../settings/settingsStore';
import { displaySource, readDisplay, useDisplay } from './display';

const EVERY = 2000;

const many = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;

/** This computer's screen as a plan: which displays and windows there are, to scale. */
export function Live() {
  const answer = useDisplay((s) => s.answer);
  const allowed = useSettings((s) => s.settings.displayAllowed);
  const display = useSettings((s) => s.settings.way.display);
  const [lost, setLost] = useState<string | null>(null);
  useEffect(() => {
    const look = () => {
      if (document.hidden) return;
      void readDisplay().then(
        () => setLost(null),
        (error: unknown) => setLost(messageOf(error)),
      );
    };
    look();
    const timer = setInterval(look, EVERY);
    return () => clearInterval(timer);
  }, [allowed]);
  const current = answer?.monitors.find((m) => answer.pointer && inside(m, answer.pointer));
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="font-name text-lg">This computer</h1>
        {answer?.available && (
          <>
            <span className="font-measure text-[13px] text-faint">
              {answer.noWindowList
                ? 'All its screens'
                : `${answer.width} × ${answer.height} px · ${many(answer.windows.length, 'window')}`}
            </span>
            <DisplayMap
              displays={displaySource.displays()}
              value={display}
              current={current?.name}
              onChoose={(id) => changeWay({ display: id })}
            />
          </>
        )}
      </div>
      {lost && <p role="status">{lost}</p>}
      {!allowed ? (
        <Ask />
      ) : answer?.available && !answer.noWindowList ? (
        <>
          {answer.reason && <p className="mb-2 text-[13px] text-soft">{answer.reason}</p>}
          <Plan answer={answer} />
        </>
      ) : (
        <div className="grid min-h-0 grow place-content-center text-center">
          <p role="status" className="max-w-md font-bold">
            {answer?.reason ?? 'Looking for the screen of this computer …'}
          </p>
        </div>
      )}
    </>
  );
}

const inside = (r: Rect, p: { x: number; y: number }): boolean =>
  p.x >= r.x && p.y >= r.y && p.x < r.x + r.width && p.y < r.y + r.height;

function Ask() {
  return (
    <div className="grid min-h-0 grow place-content-center justify-items-center gap-4 text-center">
      <p role="status" className="max-w-md font-bold">
        Rezzik can take the screen of the computer it runs on, with its real windows.
      </p>
      <p className="max-w-md text-soft">
        It reads the screen only when you take, and only for a browser on this same computer. You
        can take the leave back in Setup › This computer.
      </p>
      <Button look="plain" onClick={() => changeSettings({ displayAllowed: true })}>
        Allow reading this computer’s screen
      </Button>
    </div>
  );
}

function Plan({ answer }: { answer: DisplayAnswer }) {
  const [frame, space] = useSize<HTMLDivElement>();
  const size = { width: answer.width ?? 1, height: answer.height ?? 1 };
  const scale = space.width > 0 ? fitScale(size, space, 1) : 0;
  const shown = answer.windows.filter(isShown);
  return (
    <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
      {scale > 0 && (
        <svg
          role="img"
          aria-label={`${many(answer.monitors.length, 'display')}, ${many(shown.length, 'window')}`}
          width={size.width * scale}
          height={size.height * scale}
          viewBox={`0 0 ${size.width} ${size.height}`}
          className="rounded-[6px] shadow-picture"
        >
          {answer.monitors.map((m) => (
            <g key={m.name}>
              <rect {...place(m)} className="fill-card stroke-edge" strokeWidth={2 / scale} />
              <text
                x={m.x + 14 / scale}
                y={m.y + m.height - 14 / scale}
                fontSize={13 / scale}
                className="fill-faint font-measure"
              >
                {m.name} · {m.width} × {m.height}
                {m.primary && answer.monitors.length > 1 ? ' · main' : ''}
              </text>
            </g>
          ))}
          {shown.map((w) => (
            <PlanWindow key={w.id} window={w} scale={scale} focused={w.id === answer.focused} />
          ))}
        </svg>
      )}
    </div>
  );
}

const place = ({ x, y, width, height }: Rect) => ({ x, y, width, height });

function PlanWindow(props: { window: ScreenWindow; scale: number; focused: boolean }) {
  const { window, scale, focused } = props;
  const r = window.frameBounds ?? window.bounds;
  const most = Math.floor((r.width * scale - 12) / 7);
  const title = window.title || window.program;
  const cut = title.length > most ? `${title.slice(0, Math.max(0, most - 1))}…` : title;
  return (
    <g>
      <rect
        {...place(r)}
        rx={4 / scale}
        className={focused ? 'fill-tint stroke-petrol' : 'fill-paper stroke-edge'}
        strokeWidth={(focused ? 2 : 1.2) / scale}
      />
      {most > 3 && (
        <text
          x={r.x + 8 / scale}
          y={r.y + 18 / scale}
          fontSize={13 / scale}
          className={focused ? 'fill-petrol font-bold' : 'fill-ink'}
        >
          {cut}
        </text>
      )}
    </g>
  );
}
