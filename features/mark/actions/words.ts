import { kindOf, wordsOf, type Mark } from '@/core/marks/registry';
import { update } from '../session/session';
import { markById, select } from '../session/select';
import { addMark } from './make';
import { replaceMarks, deleteSelected } from './change';

/** Kinds that are nothing without their words are typed into as soon as they are there. */
export const opensAtOnce = (mark: Mark): boolean => kindOf(mark).words?.atOnce === true;

/** Opens the field for a mark's words; a new one is not in the document until it holds some. */
export function beginWords(mark: Mark, isNew: boolean): void {
  update({ editing: mark.id, live: isNew ? [mark] : [], selection: isNew ? [] : [mark.id] });
}

export function endWords(mark: Mark, words: string): void {
  const known = markById(mark.id);
  update({ editing: null, live: [] });
  const held = wordsOf(known ?? mark);
  if (!held) return;
  // Looked into and left as it was.
  if (known && held.read(known) === words && words.trim() !== '') return;
  const next = held.write(known ?? mark, words);
  if (opensAtOnce(mark) && words.trim() === '') {
    if (known) {
      select([mark.id]);
      deleteSelected();
    }
  } else if (known) replaceMarks([next], 'Change the words');
  else addMark(next);
}
