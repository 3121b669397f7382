import { useEffect, useRef, useState } from 'react';
import { limits } from '@/core/contracts/limits';
import { platePadding, type TextMark } from '@/core/marks/text';
import { LINE_SPACING } from '@/core/paint/textLayout';
import { endText, markById } from './actions';
import { toScreen, type Camera } from './camera';
import { useSession } from './session';

/** The field a text is typed into, lying where the text will be. */
export function TextField({ camera }: { camera: Camera }) {
  const editing = useSession((s) => s.editing);
  const fresh = useSession((s) => s.live.find((mark) => mark.id === s.editing));
  const mark = editing ? (fresh ?? markById(editing)) : undefined;
  if (mark?.kind !== 'text') return null;
  return <Field key={mark.id} mark={mark} camera={camera} />;
}

function Field({ mark, camera }: { mark: TextMark; camera: Camera }) {
  const [words, setWords] = useState(mark.text);
  const field = useRef<HTMLTextAreaElement>(null);
  const done = useRef(false);
  const latest = useRef(words);
  const finish = () => {
    if (done.current) return;
    done.current = true;
    endText(mark, latest.current);
  };
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  useEffect(() => {
    const element = field.current;
    if (!element) return;
    element.style.height = 'auto';
    element.style.height = `${element.scrollHeight}px`;
  }, [words, camera.scale]);
  const at = toScreen(camera, mark);
  const size = mark.textSize * camera.scale;
  const padding = platePadding(mark.textSize) * camera.scale;
  return (
    <textarea
      ref={field}
      aria-label="Text"
      value={words}
      maxLength={limits.textLength}
      rows={1}
      spellCheck={false}
      onChange={(event) => {
        latest.current = event.target.value;
        setWords(event.target.value);
      }}
      onBlur={finish}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.nativeEvent.isComposing) return;
        if (event.key === 'Escape' || (event.key === 'Enter' && (event.ctrlKey || event.metaKey))) {
          event.preventDefault();
          finish();
        }
      }}
      className="absolute resize-none overflow-hidden rounded-[4px] font-read outline-2 outline-petrol"
      style={{
        left: at.x - padding,
        top: at.y - padding,
        width: mark.width * camera.scale + 2 * padding,
        padding,
        fontSize: size,
        lineHeight: `${size * LINE_SPACING}px`,
        fontWeight: mark.bold ? 700 : 400,
        color: mark.colour,
        background: mark.plate ?? 'transparent',
      }}
    />
  );
}
