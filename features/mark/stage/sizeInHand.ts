import { create } from 'zustand';
import { kindOf, type MarkName } from '@/core/marks/registry';
import { numbersOf } from '@/core/numbers/written';
import type { Style } from '@/core/marks/style';
import { announce } from '../../ui/announce';
import { setStyle } from '../actions/restyle';
import { markById } from '../session/select';
import { gestureGoesOn } from '../gestures/hand';
import { session } from '../session/session';
import { useStyles } from '../session/styles';
import { isMarkTool } from '../session/tools';

/** Settings with a slider, and how far it goes; lengths in pixels of the frame. */
export const extents = {
  thickness: { label: 'Thickness', min: 1, max: 60, step: 1 },
  textSize: { label: 'Size', min: 6, max: 400, step: 1 },
  size: { label: 'Size', min: 12, max: 200, step: 1 },
  strength: { label: 'Strength', min: 2, max: 60, step: 1 },
  zoom: { label: 'Enlarged', min: 1.5, max: 8, step: 0.5 },
  outline: { label: 'Line', min: 0, max: 60, step: 1 },
  corner: { label: 'Corners', min: 0, max: 60, step: 1 },
  softness: { label: 'Soft edge', min: 0, max: 60, step: 1 },
} as const;

/** What says how large or thick a kind of mark is, the first one it has. */
const sizeFields = ['thickness', 'textSize', 'size', 'strength', 'zoom', 'outline'] as const;
export type SizeField = (typeof sizeFields)[number];

interface Shown {
  label: string;
  words: string;
  /** A circle as thick as the stroke, pixels of the frame; none for what is no length on the picture. */
  across: number | null;
  /** Counts up, so that each change is shown for its own time. */
  turn: number;
}

export const useSizeShown = create<{ shown: Shown | null }>(() => ({ shown: null }));

const kindInHand = (): MarkName | null => {
  const { tool, selection } = session();
  const chosen = markById(selection[0] ?? '');
  return chosen?.kind ?? (isMarkTool(tool) ? tool : null);
};

/** The next value: about a twelfth more or less, at least one step, within the bounds. */
export function stepped(field: SizeField, value: number, by: 1 | -1): number {
  const { min, max, step } = extents[field];
  const size = Math.max(step, Math.round(value / 12 / step) * step);
  return Math.min(max, Math.max(min, value + by * size));
}

/**
 * Makes the selected marks, else the tool in hand, thicker or larger by a step. During a stroke
 * nothing changes; nor where there is nothing to be sized.
 */
export function sizeBy(by: 1 | -1): void {
  if (gestureGoesOn() || session().editing !== null) return;
  const kind = kindInHand();
  const field = kind && sizeFields.find((one) => kindOf(kind).settings.includes(one));
  if (!kind || !field) return;
  const chosen = markById(session().selection[0] ?? '');
  const style: Style = {
    ...useStyles.getState()[kind],
    ...(chosen && kindOf(chosen).styleOf(chosen)),
  };
  const value = stepped(field, style[field], by);
  if (value !== style[field]) setStyle({ [field]: value });
  const { label } = extents[field];
  const words = `${numbersOf().write(value)} ${field === 'zoom' ? '×' : 'px'}`;
  const across = field === 'thickness' || field === 'outline' ? value : null;
  useSizeShown.setState(({ shown }) => ({
    shown: { label, words, across, turn: (shown?.turn ?? 0) + 1 },
  }));
  announce(`${label} ${words}`);
}

export const hideSize = (): void => useSizeShown.setState({ shown: null });
