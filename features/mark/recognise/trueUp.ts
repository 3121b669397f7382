import { centre } from '@/core/geometry/rect';
import { markSchema, type Mark, type MarkInput } from '@/core/marks/registry';
import { formsOf, type Candidate, type Form } from '@/core/trueUp/trueUp';
import { markById } from '../session/select';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { session, update } from '../session/session';

export const formLabels: Record<Form['form'], string> = {
  line: 'Line',
  arrow: 'Arrow',
  arc: 'Arc',
  circle: 'Circle',
  oval: 'Oval',
  box: 'Box',
  triangle: 'Triangle',
  tick: 'Check mark',
};

type Pen = Extract<Mark, { kind: 'pen' }>;

/** Offers what a stroke may have been meant to be. */
export function offerTrueUp(mark: Mark): void {
  if (mark.kind !== 'pen') return;
  const candidates = formsOf(mark.points.map(([x, y]) => ({ x, y }))).slice(0, 3);
  update({ trueUp: candidates.length ? { id: mark.id, candidates } : null });
}

/** Puts the form in the stroke's place, in one step: undo gives the stroke back. */
export function trueUp(candidate?: Candidate): void {
  const { trueUp: offered, selection } = session();
  const id = offered?.id ?? selection[0] ?? '';
  const stroke = markById(id);
  if (stroke?.kind !== 'pen') return;
  const chosen = candidate ?? formsOf(stroke.points.map(([x, y]) => ({ x, y })))[0];
  if (!chosen) return;
  const made = markOf(chosen.meant, stroke);
  changeDocument('True up', (draft) => {
    const at = draft.marks.findIndex((mark) => mark.id === id);
    if (at >= 0) draft.marks[at] = made;
  });
  update({ trueUp: null, selection: [made.id] });
}

function markOf(form: Form, { colour, thickness, halo, standsOut }: Pen): Mark {
  const base = {
    id: newId(),
    colour,
    ...(halo && { halo }),
    ...(standsOut === false && { standsOut }),
  };
  return markSchema.parse(inputOf(form, base, thickness));
}

function inputOf(form: Form, base: { id: string; colour: string }, thickness: number): MarkInput {
  switch (form.form) {
    case 'line':
    case 'arrow': {
      const { from, to } = form;
      const heads = form.form === 'arrow' ? 'end' : 'none';
      return { ...base, kind: form.form, from, to, thickness, heads };
    }
    case 'arc': {
      const { from, to, bend } = form;
      return { ...base, kind: 'line', from, to, bend, thickness, heads: 'none' };
    }
    case 'circle':
      return { ...base, kind: 'oval', ...form.rect, outline: thickness };
    case 'oval':
    case 'box':
      return { ...base, kind: form.form, ...form.rect, outline: thickness };
    case 'triangle':
      return {
        ...base,
        kind: 'polygon',
        points: form.points.map(({ x, y }): [number, number] => [x, y]),
        outline: thickness,
      };
    case 'tick': {
      const side = Math.max(10, form.rect.width, form.rect.height);
      const { x, y } = centre(form.rect);
      const at = { x: x - side / 2, y: y - side / 2, width: side, height: side };
      return { ...base, kind: 'stamp', stamp: 'tick', ...at };
    }
  }
}
