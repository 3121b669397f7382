import { useEffect, useRef, useState } from 'react';
import { limits } from '@/core/values/limits';
import type { WordsField } from '@/core/marks/shared/wordsField';
import { kindOf, wordsOf, type Mark } from '@/core/marks/registry';
import { giveKeysBack } from '../../keys/focus';
import { markById } from '../session/select';
import { endWords } from '../actions/words';
import { toScreen, type Camera } from '../session/camera';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';

/** The field that words are typed into, lying where they will be. */
export function TextField({ camera }: { camera: Camera }) {
  const editing = useTool((s) => s.editing);
  const shaper = useDocument((s) => s.shaper);
  const fresh = useLive((s) => s.live.find((mark) => mark.id === editing));
  const mark = editing ? (fresh ?? markById(editing)) : undefined;
  const words = mark && wordsOf(mark);
  if (!mark || !words) return null;
  return (
    <Field
      key={mark.id}
      mark={mark}
      first={words.read(mark)}
      place={words.field(mark, { shaper })}
      camera={camera}
    />
  );
}

const families: Record<WordsField['face'], string> = {
  plain: 'var(--font-read)',
  display: 'var(--font-name)',
  hand: 'var(--font-hand)',
  fixed: 'var(--font-measure)',
};
const sides = { start: 'start', centre: 'center', end: 'end' } as const;

interface Props {
  mark: Mark;
  first: string;
  place: WordsField;
  camera: Camera;
}

function Field({ mark, first, place, camera }: Props) {
  const [words, setWords] = useState(first);
  const field = useRef<HTMLTextAreaElement>(null);
  const done = useRef(false);
  const latest = useRef(words);
  const finish = () => {
    if (done.current) return;
    done.current = true;
    endWords(mark, latest.current);
  };
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const at = toScreen(camera, place);
  const size = place.textSize * camera.scale;
  const padding = place.padding * camera.scale;
  const most = place.height === undefined ? null : place.height * camera.scale;
  useEffect(() => {
    const element = field.current;
    if (!element) return;
    element.style.height = 'auto';
    const tall = element.scrollHeight;
    element.style.height = `${tall}px`;
    // In the middle of the height there is, as the words themselves will be.
    if (most !== null) element.style.top = `${at.y + (most - tall) / 2}px`;
    if (!place.turned) return;
    // It stands at the angle its words will have, turned about the same place.
    const about = toScreen(camera, place.turned.about);
    const top = Number.parseFloat(element.style.top);
    element.style.transformOrigin = `${about.x - (at.x - padding)}px ${about.y - top}px`;
    element.style.transform = `rotate(${place.turned.angle}deg)`;
  }, [words, camera, most, at.x, at.y, padding, place.turned]);
  return (
    <textarea
      ref={field}
      aria-label={kindOf(mark).label}
      value={words}
      maxLength={limits.textLength}
      rows={1}
      dir="auto"
      spellCheck={false}
      onChange={(event) => {
        latest.current = event.target.value;
        setWords(event.target.value);
      }}
      onBlur={finish}
      onPointerDown={(event) => event.stopPropagation()}
      // Words have the browser's own menu: spelling, pasting.
      onContextMenu={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || event.nativeEvent.isComposing) return;
        event.preventDefault();
        finish();
        giveKeysBack(event.currentTarget);
      }}
      className="absolute resize-none overflow-hidden rounded-[4px] outline-2 outline-petrol"
      style={{
        left: at.x - padding,
        top: at.y - padding,
        width: place.width * camera.scale + 2 * padding,
        padding,
        fontSize: size,
        fontFamily: families[place.face],
        textAlign: sides[place.align],
        lineHeight: `${size * place.lineSpacing}px`,
        fontWeight: place.bold ? 700 : 400,
        color: place.colour,
        background: place.ground ?? 'transparent',
      }}
    />
  );
}
