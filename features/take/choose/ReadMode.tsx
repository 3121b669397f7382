import { useCallback, useMemo, useState } from 'react';
import { toHex } from '@/core/colour/colour';
import { formatColour } from '@/core/colour/formats';
import { measureWords } from '@/core/geometry/measure';
import type { Point } from '@/core/geometry/point';
import { arrowStep, isArrow } from '@/core/region/selection';
import { messageOf } from '../../api/ask';
import { copyText } from '../../pictures/clipboard';
import { notify } from '../../notices/noticeStore';
import { chosenLook, classes } from '../../ui/classes';
import { Radio, Radios } from '../../ui/Radios';
import type { Choosing } from '../takeState';
import { Footer, Said } from './Footer';
import { Outline } from './Outline';
import { StillPicture } from './StillPicture';
import { useEveryKey } from '../../keys/useKey';

const colourForms = ['hex', 'rgb', 'hsl'] as const;
type ColourForm = (typeof colourForms)[number];

async function copy(words: string): Promise<void> {
  try {
    await copyText(words);
    notify({ key: 'read off', tone: 'good', title: `Copied: ${words}` });
  } catch (error) {
    notify({
      key: 'read off',
      tone: 'bad',
      title: `Not copied: ${words}`,
      reason: messageOf(error),
    });
  }
}

const whole = (p: Point): Point => ({ x: Math.floor(p.x), y: Math.floor(p.y) });

/** Reads single pixels of the picture without drawing it again each time. */
function usePixels(picture: ImageBitmap): (p: Point) => string | null {
  return useMemo(() => {
    const canvas = new OffscreenCanvas(1, 1);
    const surface = canvas.getContext('2d', { willReadFrequently: true });
    return ({ x, y }) => {
      if (!surface || x < 0 || y < 0 || x >= picture.width || y >= picture.height) return null;
      surface.clearRect(0, 0, 1, 1);
      surface.drawImage(picture, -x, -y);
      const [r = 0, g = 0, b = 0, a = 0] = surface.getImageData(0, 0, 1, 1).data;
      return a === 0 ? null : toHex({ r, g, b });
    };
  }, [picture]);
}

/** Ctrl+C, or ⌘C, copies what was read off. */
const isCopy = (event: KeyboardEvent): boolean =>
  (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'c';

/** Arrow keys move a place by a pixel, with Shift by ten. */
function movedBy(event: KeyboardEvent, from: Point): Point | null {
  if (!isArrow(event.key)) return null;
  const by = arrowStep(event.key, event.shiftKey ? 10 : 1);
  return { x: from.x + by.x, y: from.y + by.y };
}

/** The colour of a pixel, copied by a click; no shot is made. */
export function ColourMode({ choosing }: { choosing: Choosing }) {
  const { picture } = choosing.stilled;
  const read = usePixels(picture);
  const [at, setAt] = useState<Point>({ x: picture.width >> 1, y: picture.height >> 1 });
  const [form, setForm] = useState<ColourForm>('hex');
  const colour = read(at);
  const written = colour ? formatColour(colour) : null;
  const words = written?.[form];
  const take = useCallback(() => {
    if (words) void copy(words);
  }, [words]);
  useEveryKey(
    useCallback(
      (event) => {
        const next = movedBy(event, at);
        if (next) setAt(next);
        else if (event.key === 'Enter' || isCopy(event)) take();
        else return false;
        return true;
      },
      [at, take],
    ),
  );
  return (
    <>
      <StillPicture
        picture={picture}
        onMove={(touch) => setAt(whole(touch.at))}
        onUp={take}
        overlay={(scale) => (
          <Outline region={null} frame={picture} scale={scale}>
            <Cross at={{ x: (at.x + 0.5) * scale, y: (at.y + 0.5) * scale }} />
          </Outline>
        )}
      />
      <Footer take="Copy the colour" disabled={!words} onTake={take}>
        <span
          aria-hidden
          className="size-6 rounded-[5px] border border-edge"
          style={{ background: colour ?? 'transparent' }}
        />
        <Radios label="How it is written" value={form} className="flex gap-1" onChange={setForm}>
          {colourForms.map((name) => (
            <Radio
              key={name}
              value={name}
              className={classes(
                'h-7 rounded-[6px] border px-2 font-measure text-[13px]',
                chosenLook(name === form),
              )}
            >
              {written?.[name] ?? name.toUpperCase()}
            </Radio>
          ))}
        </Radios>
        <Said label="Colour">{colour ? `${colour} at ${at.x}, ${at.y}` : 'no colour here'}</Said>
      </Footer>
    </>
  );
}

/** All that can be said of two places; copied by key or button, never by letting go. */
export function MeasureMode({ choosing }: { choosing: Choosing }) {
  const { picture } = choosing.stilled;
  const [line, setLine] = useState<{ from: Point; to: Point; held: boolean } | null>(null);
  const words = line && measureWords(line.from, line.to);
  const take = useCallback(() => {
    if (words) void copy(words);
  }, [words]);
  useEveryKey(
    useCallback(
      (event) => {
        const middle = { x: picture.width >> 1, y: picture.height >> 1 };
        const next = movedBy(event, line?.to ?? middle);
        if (next) setLine({ from: line?.from ?? middle, to: next, held: false });
        else if (event.key === 'Enter' || isCopy(event)) take();
        else return false;
        return true;
      },
      [line, picture, take],
    ),
  );
  return (
    <>
      <StillPicture
        picture={picture}
        onDown={({ at }) => setLine({ from: whole(at), to: whole(at), held: true })}
        onMove={({ at }) => setLine((l) => (l?.held ? { ...l, to: whole(at) } : l))}
        onUp={() => setLine((l) => l && { ...l, held: false })}
        overlay={(scale) => (
          <Outline region={null} frame={picture} scale={scale}>
            {line && (
              <line
                x1={line.from.x * scale}
                y1={line.from.y * scale}
                x2={line.to.x * scale}
                y2={line.to.y * scale}
                className="stroke-petrol"
                strokeWidth={2}
              />
            )}
          </Outline>
        )}
      />
      <Footer take="Copy the distance" disabled={!words} onTake={take}>
        <Said label="Distance">{words ?? 'Drag from one place to another.'}</Said>
      </Footer>
    </>
  );
}

function Cross({ at }: { at: Point }) {
  return (
    <path
      d={`M${at.x - 9} ${at.y}h18M${at.x} ${at.y - 9}v18`}
      className="stroke-petrol"
      strokeWidth={2}
    />
  );
}
