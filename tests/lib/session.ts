import type { Mark } from '@/core/marks/registry';
import { untouched } from '@/core/document/view';
import { startHistory } from '@/core/document/history';
import { openSession, session } from '@/features/mark/session/session';
import { testShaper } from './shaper';

/** A shot of 600 × 400 open in Mark, without a browser: nothing here looks at its pixels. */
export async function openTestSession(marks: readonly Mark[] = [], id = 'shot'): Promise<void> {
  const frame = { width: 600, height: 400 };
  openSession({
    titleOwn: false,
    id,
    title: 'Pond edge',
    frame: { ...frame, close: () => undefined },
    plain: { ...frame, close: () => undefined },
    picture: { ...frame, close: () => undefined },
    provenance: { source: 'desk', takenAt: '2026-11-23T14:02:11Z' },
    shaper: await testShaper(),
    history: startHistory({ ...untouched(frame), marks: structuredClone([...marks]) }),
  });
}

export const ids = (): string[] => session().history.document.marks.map((mark) => mark.id);
