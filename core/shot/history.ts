import { applyPatches, enablePatches, produceWithPatches } from 'immer';
import type { ShotDocument } from '../contracts/document';
import type { Step } from '../contracts/steps';

enablePatches();

/** A document with the steps that led to it; `position` counts the steps that are done. */
export interface History {
  document: ShotDocument;
  steps: readonly Step[];
  position: number;
}

export const startHistory = (document: ShotDocument): History => ({
  document,
  steps: [],
  position: 0,
});

/**
 * Applies a change as one step. Steps that were undone before are dropped. A change that alters
 * nothing gives the same history back.
 */
export function change(
  history: History,
  label: string,
  recipe: (draft: ShotDocument) => void,
): History {
  const [document, patches, inverse] = produceWithPatches(history.document, recipe);
  if (patches.length === 0) return history;
  // immer types a patch's value as unknown; what it holds came out of a JSON document.
  const step = { label, patches, inverse } as unknown as Step;
  const steps = [...history.steps.slice(0, history.position), step];
  return { document, steps, position: steps.length };
}

/**
 * Like `change`, but joined to the step before when that has the same label and nothing was
 * undone since: a slider pulled or an arrow key held down is one step, not a hundred.
 */
export function changeOn(
  history: History,
  label: string,
  recipe: (draft: ShotDocument) => void,
): History {
  const last = history.steps[history.position - 1];
  if (!last || last.label !== label || history.position !== history.steps.length) {
    return change(history, label, recipe);
  }
  const before = undo(history);
  const joined = change(before, label, (draft) => {
    Object.assign(draft, history.document);
    recipe(draft);
  });
  return joined === before ? before : joined;
}

export const canUndo = (history: History): boolean => history.position > 0;
export const canRedo = (history: History): boolean => history.position < history.steps.length;

export function undo(history: History): History {
  const step = history.steps[history.position - 1];
  if (!step) return history;
  return {
    ...history,
    document: applyPatches(history.document, step.inverse),
    position: history.position - 1,
  };
}

export function redo(history: History): History {
  const step = history.steps[history.position];
  if (!step) return history;
  return {
    ...history,
    document: applyPatches(history.document, step.patches),
    position: history.position + 1,
  };
}
