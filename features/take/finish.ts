import type { ShotDocument } from '@/core/document/document';
import type { ThenStep, Way } from '@/core/contracts/way';
import { contains } from '@/core/geometry/rect';
import { autoTitle } from '@/core/take/autoTitle';
import { describedAs } from '@/core/keep/leaving';
import { untouched } from '@/core/document/view';
import { api, ApiError, messageOf } from '../api/client';
import { dropFromOutbox, putInOutbox, untilSafe, whenStored } from '../outbox/outbox';
import { forget, remember } from '../outbox/memory';
import { thumbOf } from '../pictures/thumbs';
import { navigate } from '../thread/navigate';
import { amend, dismiss, notify, useNotices } from '../notices/noticeStore';
import { countOne } from '../names/dayCount';
import { beginEntry, changeEntry, noteOutcome, outcomeKey, type Outcome } from '../trail/trail';
import { useSettings } from '../settings/settingsStore';
import { playShutter } from './sound';
import type { Stilled } from './sources/contract';
import { doStep, failing, type Handed } from './steps';
import type { Choice } from './choice';
import { stepLabel } from './thenSteps';

export interface Taken {
  stilled: Stilled;
  /** The whole frame, being encoded. */
  png: Promise<Blob>;
  choice: Choice;
  then: readonly ThenStep[];
  /** How it was taken, and what takes again that way. */
  way: Way;
  again: (way: Way) => void;
}

function documentOf({ stilled, choice, way: { pointer } }: Taken): ShotDocument {
  const { crop, shape, part } = choice;
  const piece = pointer ? stilled.pointer?.piece : null;
  const seen = piece && contains(crop, stilled.pointer?.at ?? { x: -1, y: -1 });
  return {
    ...untouched(stilled.picture),
    view: shape ? { crop, shape } : { crop },
    marks: seen ? [piece] : [],
    ...(part && { description: describedAs(part) }),
  };
}

/**
 * What follows a confirmed take: into the outbox, and then whatever Then says, in its order. None
 * that fails stops the others.
 */
export function finishTake(taken: Taken): void {
  const { settings } = useSettings.getState();
  const { stilled, png, then, choice, way } = taken;
  const id = crypto.randomUUID();
  const document = documentOf(taken);
  const { provenance, picture } = stilled;
  const title = autoTitle(way.kind, countOne(), stilled.title);
  remember({ id, title, picture, document, provenance });
  const key = `take ${id}`;
  const safe = untilSafe(
    id,
    png.then((blob) =>
      putInOutbox({
        ...{ id, picture: blob, title, titleMade: true },
        ...{ provenance, document, size: picture },
      }),
    ),
  );
  beginEntry(id, title, provenance.takenAt);
  const marking = then.some((step) => step.do === 'mark');
  if (marking) navigate(`/shots/${id}`);
  if (settings.sound) playShutter();
  if (settings.notice) showNotice(key, id, title, marking, () => taken.again(way));
  if (choice.remark) tell(key, choice.remark);
  safe.catch((error: unknown) => {
    notify({
      key: `${key} unsafe`,
      tone: 'bad',
      title: 'This shot could not be put aside',
      lines: [
        'The browser’s own store refused it. Copy or download it now; closing this tab would lose it.',
      ],
      reason: messageOf(error),
    });
  });
  // After the picture itself is shown, yet within the time of an answer.
  if (settings.notice && settings.thumbnail) {
    const show = () => void thumb(key, picture, document);
    if (globalThis.document.hidden) show();
    else requestAnimationFrame(show);
  }
  const shot: Handed = { id, leaves: way, fresh: { frame: picture, document } };
  for (const step of then) if (step.do !== 'mark') void carryOut(key, step, shot);
  void arrive(key, id);
}

/** One thing done with a take; how it goes is said in its answer and in the trail. */
async function carryOut(key: string, step: ThenStep, shot: Handed): Promise<void> {
  const note = (state: Outcome['state'], said: string) =>
    noteOutcome(shot.id, { key: outcomeKey(step), state, said, step });
  note('going', stepLabel(step));
  try {
    const said = await doStep(step, shot);
    note('done', said);
    tell(key, said);
  } catch (error) {
    const words = `${failing[step.do]} ${messageOf(error)}`;
    note('failed', words);
    const reason = error instanceof ApiError ? error.reason : undefined;
    tell(key, words, { reason, again: () => void carryOut(key, step, shot) });
  }
}

/** Tries again what failed before, perhaps on another day. */
export const tryAgain = (id: string, step: ThenStep): Promise<void> =>
  carryOut(`take ${id}`, step, { id, leaves: { format: null, size: null } });

function showNotice(
  key: string,
  id: string,
  title: string,
  marking: boolean,
  again: () => void,
): void {
  notify({
    key,
    tone: 'good',
    title,
    lines: [],
    href: `/shots/${id}`,
    action: marking ? undefined : { label: 'Mark', act: () => navigate(`/shots/${id}`) },
    second: {
      label: 'Throw away, take again',
      hint: 'Shift+T',
      act: () => void throwAway(key, id, again),
    },
  });
}

/** Adds to what the take's notice says; speaks up on its own when notices are off and it is bad. */
function tell(key: string, line: string, bad?: { reason?: string; again: () => void }): void {
  const notice = useNotices.getState().notices.find((n) => n.key === key);
  if (bad) {
    notify({
      key: `${key} ${line}`,
      tone: 'bad',
      title: line,
      lines: ['The shot itself is safe on the Shelf.'],
      reason: bad.reason,
      action: { label: 'Try again', act: bad.again },
    });
  } else if (notice) {
    amend(key, { lines: [...(notice.lines ?? []), line], until: Date.now() + 9000 });
  }
}

async function thumb(key: string, frame: ImageBitmap, { view }: ShotDocument): Promise<void> {
  const picture = URL.createObjectURL(await thumbOf(frame, view.crop));
  if (useNotices.getState().notices.some((n) => n.key === key)) amend(key, { picture });
  else URL.revokeObjectURL(picture);
}

/** The take says where it is once the server has it; trouble is the outbox's to tell. */
async function arrive(key: string, id: string): Promise<void> {
  const stored = await whenStored(id).catch(() => null);
  if (stored) tell(key, 'On the Shelf');
}

/** Bins the shot and takes again, the same way. */
async function throwAway(key: string, id: string, again: () => void): Promise<void> {
  dismiss(key);
  changeEntry(id, { gone: true });
  navigate('/take');
  forget(id);
  again();
  await whenStored(id)
    .then(() => api.bin(id))
    .catch(() => dropFromOutbox(id));
}
