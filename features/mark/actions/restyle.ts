import { kindOf, type Mark } from '@/core/marks/registry';
import type { Style } from '@/core/marks/style';
import { session } from '../session/session';
import { rememberStyle } from '../session/styles';
import { isMarkTool } from '../session/tools';
import { marks, markById, unlocked } from '../session/select';
import { replaceMarks } from './change';

/** The mark with an opacity, where its kind has one; 1 is not written down. */
export function faded(mark: Mark, opacity: number | undefined): Mark {
  if (opacity === undefined || !kindOf(mark).fades) return mark;
  return Object.assign({ ...mark }, { opacity: opacity < 1 ? opacity : undefined });
}

/** The mark with or without an edge where it needs one; that it gets one is not written down. */
export function edged(mark: Mark, standsOut: boolean | undefined): Mark {
  if (standsOut === undefined) return mark;
  const { standsOut: _, ...bare } = mark;
  return standsOut ? bare : { ...bare, standsOut };
}

/** Whether what is in hand may let what is below shine through. */
export function fadesNow(): boolean {
  const { tool, selection } = session();
  const first = markById(selection[0] ?? '');
  if (first) return kindOf(first).fades === true;
  return isMarkTool(tool) && kindOf(tool).fades === true;
}

/** A setting of the strip: for the selected marks, else for the tool; either way remembered. */
export function setStyle(change: Partial<Style>): void {
  const chosen = unlocked();
  const { tool } = session();
  const names = chosen.length ? chosen.map((m) => m.kind) : isMarkTool(tool) ? [tool] : [];
  for (const name of new Set(names)) rememberStyle(name, change);
  if (chosen.length === 0) return;
  // One shot counts one way, for example: what is set on one number is set on all.
  const all = new Set(
    chosen.flatMap((m) => (kindOf(m).common?.some((field) => field in change) ? m.kind : [])),
  );
  const meant = all.size ? marks().filter((m) => all.has(m.kind) || chosen.includes(m)) : chosen;
  const { standsOut } = change;
  const changed = meant.map((mark) =>
    edged(faded(kindOf(mark).restyle(mark, change), change.opacity), standsOut),
  );
  const fields = Object.keys(change).join();
  replaceMarks(changed, 'Change the look', `style ${fields} ${changed.map((m) => m.id).join()}`);
}
