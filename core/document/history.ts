import { applyPatches, enablePatches, produceWithPatches } from 'immer';
import type { ShotDocument } from './document';
import type { Step } from './steps';
import { DOCUMENT_VERSION } from './version';

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
  const step: Step = { version: DOCUMENT_VERSION, label, patches, inverse };
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
  const joined = change(history, label, recipe);
  const step = joined.steps.at(-1);
  if (joined === history || !step) return history;
  const one: Step = {
    version: DOCUMENT_VERSION,
    label,
    patches: withoutRepeats([...last.patches, ...step.patches]),
    inverse: withoutRepeats([...step.inverse, ...last.inverse]),
  };
  const steps = [...history.steps.slice(0, -1), one];
  return { document: joined.document, steps, position: steps.length };
}

/**
 * Adds to the last step what belongs to it and was only known later; it is undone with it. Where
 * nothing was done, or something was undone since, the history stays as it is.
 */
export function amend(history: History, recipe: (draft: ShotDocument) => void): History {
  const last = history.steps[history.position - 1];
  return last && history.position === history.steps.length
    ? changeOn(history, last.label, recipe)
    : history;
}

/** Of several replacements at one path only the last counts. */
function withoutRepeats(patches: Step['patches']): Step['patches'] {
  if (patches.some((patch) => patch.op !== 'replace')) return patches;
  const last = new Map(patches.map((patch, i) => [JSON.stringify(patch.path), i]));
  return patches.filter((patch, i) => last.get(JSON.stringify(patch.path)) === i);
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
