import type { ShotDocument } from '@/core/document/document';
import type { Way } from '@/core/contracts/way';
import { stepLabel, type ThenStep } from '@/core/places/registry';
import { doStep, doSteps, SAFE, type Hearer } from '@/core/take/run';
import { takenDocument } from '@/core/take/takenDocument';
import { pageDoers } from '../keep/places';
import type { Handed } from '../keep/places/contract';
import { autoTitle } from '@/core/take/autoTitle';
import { ApiError, messageOf } from '../api/ask';
import { api } from '../api/client';
import { dropFromOutbox, putInOutbox, untilSafe, whenStored } from '../outbox/outbox';
import { withLook } from '@/core/document/look';
import { lookById } from '../looks/lookStore';
import { forget, remember } from '../outbox/memory';
import { thumbOf } from '../pictures/thumbs';
import { navigate } from '../thread/navigate';
import { amend, dismiss, notify, useNotices } from '../notices/noticeStore';
import { countOne } from '../names/dayCount';
import {
  beginEntry,
  changeEntry,
  isGone,
  noteOutcome,
  outcomeKey,
  type Outcome,
} from '../trail/trail';
import { useSettings } from '../settings/settingsStore';
import { playShutter } from './sound';
import type { Stilled } from './sources/contract';
import type { Choice } from './choice';

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

/**
 * What follows a confirmed take: into the outbox, and then whatever Then says, in its order. None
 * that fails stops the others.
 */
export function finishTake(taken: Taken): void {
  const { settings } = useSettings.getState();
  const { stilled, png, then, choice, way } = taken;
  const id = crypto.randomUUID();
  const bare = takenDocument(stilled.picture, choice, way.pointer ? stilled.pointer : null);
  const look = lookById(way.look);
  const document = look ? withLook(bare, look) : bare;
  const { provenance, picture } = stilled;
  const title = autoTitle(way.kind, countOne(), stilled.title, way.source);
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
  // Mark opens before anything else, and says so by being there.
  const rest = then.filter((step) => step.do !== 'mark');
  const marking = rest.length < then.length;
  if (marking) navigate(`/shots/${id}`);
  if (settings.sound) playShutter();
  if (settings.notice) showNotice(key, id, title, marking, () => taken.again(way));
  for (const words of stilled.said ?? []) tell(key, words);
  if (choice.remark) tell(key, choice.remark);
  if (way.look && !look) tell(key, 'The look of this way is gone.');
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
  const hear = hearer(key, shot);
  // Each waits for its turn; if the page is left before that, the trail knows of it.
  for (const step of rest) hear.begins?.(step);
  const how = { doers: pageDoers, hear, explain: messageOf };
  void doSteps(rest, shot, how);
  void arrive(key, id);
}

/** How what is done with a take goes is said in its answer and in the trail. */
function hearer(key: string, shot: Handed): Hearer {
  const note = (step: ThenStep, state: Outcome['state'], said: string) =>
    noteOutcome(shot.id, { key: outcomeKey(step), state, said, step });
  return {
    begins: (step) => note(step, 'going', stepLabel(step)),
    isWanted: () => !isGone(shot.id),
    left: (step) => note(step, 'done', `${stepLabel(step)}: not begun`),
    done(step, said) {
      note(step, 'done', said);
      tell(key, said);
    },
    failed(step, words, error) {
      note(step, 'failed', words);
      // Whoever threw it away wants to hear no more of it.
      if (isGone(shot.id)) return;
      const reason = error instanceof ApiError ? error.reason : undefined;
      const again = () => void carryOut(key, step, shot);
      tell(key, words, { reason, again });
    },
  };
}

/** Does one thing with a take once more. */
const carryOut = (key: string, step: ThenStep, shot: Handed): Promise<void> =>
  doStep(step, shot, { doers: pageDoers, hear: hearer(key, shot), explain: messageOf });

/** Tries again what failed before, perhaps on another day. */
export function tryAgain(id: string, step: ThenStep): Promise<void> {
  const shot = { id, leaves: { format: null, size: null } };
  return carryOut(`take ${id}`, step, shot);
}

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
      lines: [SAFE],
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
