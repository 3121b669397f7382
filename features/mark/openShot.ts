import type { ShotDocument } from '@/core/document/document';
import type { Shot } from '@/core/contracts/shot';
import { sameDocument } from '@/core/document/sameDocument';
import type { Step } from '@/core/document/steps';
import { pictureAt } from '@/core/clip/cuts';
import type { History } from '@/core/document/history';
import { navigate } from '../thread/navigate';
import { loadShaper } from '@/workers/loadShaper';
import { api } from '../api/client';
import type { Draft } from '../outbox/db';
import { heldName } from '../names/rename';
import { dropDraft, holdDraft, orphanedDrafts } from '../outbox/drafts';
import { recall, remember } from '../outbox/memory';
import { fromOutbox } from '../outbox/outbox';
import { decodeFrame } from '../pictures/pictures';
import { followedFrame } from './fit/following';
import type { Moment } from './session/moment';
import { freshHistory, openSession } from './session/session';
import { rememberTurned, turnedPicture } from './fit/turning';
import { whenSettled } from '../outbox/settling';
import { startStoring, storeSoon } from './session/storing';

/** Shots that were opened once from memory: from then on the document is elsewhere. */
const openedBefore = new Set<string>();

/**
 * Opens a picture of a clip, with what lies on it.
 * @param at seconds from its start
 */
export async function openClipAt(id: string, at: number, stillWanted: () => boolean) {
  await whenSettled(id);
  const [shot, steps, drafts, clip, recorded] = await Promise.all([
    api.shot(id),
    api.steps(id),
    orphanedDrafts(id),
    api.clip(id),
    api.clipFrame(id, at).then(decodeFrame),
  ]);
  if (!stillWanted()) return;
  // It is recorded still.
  if (clip.state !== 'ready') return navigate(`/clips/${id}`, 'replace');
  const { times, changes } = clip;
  const picture = pictureAt(times, at);
  const moment = { picture, recorded, times, changes: changes ?? [] };
  const frame = followedFrame(moment, shot.document);
  await openStored(shot, steps, frame, drafts, stillWanted, moment);
}

/** Opens a shot from wherever it is nearest: memory, the outbox, the server. */
export async function openShot(id: string, stillWanted: () => boolean): Promise<void> {
  const shaper = await loadShaper();
  const fresh = recall(id);
  if (fresh && !openedBefore.has(id)) {
    const picture = await turnedPicture(fresh.picture, fresh.document.view.turn);
    if (!stillWanted()) return;
    openedBefore.add(id);
    rememberTurned(picture, fresh.document.view.turn);
    openSession({
      ...fresh,
      titleOwn: false,
      frame: fresh.picture,
      plain: picture,
      picture,
      shaper,
      history: freshHistory(fresh.document),
    });
    startStoring(fresh, { revision: 1, steps: [], unstored: true });
    return;
  }
  await whenSettled(id);
  const waiting = await fromOutbox(id);
  const drafts = await orphanedDrafts(id);
  if (waiting?.document) {
    const frame = fresh?.picture ?? (await decodeFrame(waiting.picture));
    const shot = { ...waiting, document: waiting.document };
    const begun = resume(shot.document, [], 0, drafts[0]);
    const { turn } = begun.history.document.view;
    const picture = await turnedPicture(frame, turn);
    if (!stillWanted()) return;
    rememberTurned(picture, turn);
    openSession({
      ...shot,
      title: heldName(id) ?? shot.title,
      titleOwn: false,
      frame,
      plain: picture,
      picture,
      shaper,
      history: begun.history,
    });
    const unsure = begun.resumed ? begun.history : undefined;
    startStoring(shot, { revision: 1, steps: [], unstored: true, unsure });
    if (begun.resumed) storeSoon();
    return;
  }
  const [shot, steps, frame] = await Promise.all([
    api.shot(id),
    api.steps(id),
    fresh?.picture ?? api.frame(id).then(decodeFrame),
  ]);
  if (!stillWanted()) return;
  // What moves is looked at, trimmed and kept in a view of its own.
  if (shot.clip) return navigate(`/clips/${id}`, 'replace');
  await openStored(shot, steps, frame, drafts, stillWanted);
}

async function openStored(
  shot: Shot,
  stored: { steps: Step[]; position: number },
  frame: ImageBitmap,
  drafts: readonly Draft[],
  stillWanted: () => boolean,
  moment: Moment | null = null,
): Promise<void> {
  const shaper = await loadShaper();
  // The next picture of a clip is another one.
  if (!moment) remember({ ...shot, picture: frame });
  openedBefore.add(shot.id);
  const news = await notThere(drafts, shot);
  const fitting = news.find((d) => d.change.revision === shot.revision);
  const stale = news.find((d) => d.change.revision !== shot.revision);
  const draft = fitting ?? stale;
  const begun = fitting
    ? resume(shot.document, stored.steps, stored.position, fitting)
    : {
        history: { document: draft?.change.document ?? shot.document, ...stored },
        resumed: false,
      };
  const { turn } = begun.history.document.view;
  const picture = await turnedPicture(frame, turn);
  if (!stillWanted()) return;
  rememberTurned(picture, turn);
  openSession({
    ...shot,
    moment,
    title: heldName(shot.id) ?? shot.title,
    titleOwn: shot.titleOwn || heldName(shot.id) !== undefined,
    frame,
    plain: picture,
    picture,
    shaper,
    history: begun.history,
    stored: !fitting && stale ? { name: 'stale', current: shot } : { name: 'stored', at: null },
  });
  startStoring(shot, {
    revision: shot.revision,
    steps: stored.steps,
    unstored: false,
    unsure: begun.resumed ? begun.history : undefined,
  });
  if (draft) await adopt(draft);
  if (begun.resumed && stillWanted()) storeSoon();
}

/**
 * What arrived although its tab was gone before it knew: such drafts are let go, and one that follows
 * such a change fits what is stored.
 */
async function notThere(drafts: readonly Draft[], shot: Shot): Promise<Draft[]> {
  const there = drafts.filter(({ change }) => sameDocument(change.document, shot.document));
  await Promise.all(there.map(dropDraft));
  const { revision, document } = shot;
  return drafts
    .filter((draft) => !there.includes(draft))
    .map((draft) => {
      const { change, underway } = draft;
      const follows =
        change.revision + 1 === revision && underway && sameDocument(underway, document);
      return follows ? { ...draft, change: { ...change, revision } } : draft;
    });
}

/** A change that a closed tab left becomes this tab's own. */
async function adopt(draft: Draft): Promise<void> {
  await dropDraft(draft);
  await holdDraft(draft.shot, draft.change);
}

/** The history with a change on top that never reached the server. */
function resume(
  document: ShotDocument,
  steps: readonly Step[],
  position: number,
  draft: Draft | undefined,
): { history: History; resumed: boolean } {
  const change = draft?.change;
  if (!change?.steps) return { history: { document, steps, position }, resumed: false };
  const { keep, added, position: at } = change.steps;
  return {
    history: {
      document: change.document,
      steps: [...steps.slice(0, keep), ...added],
      position: at,
    },
    resumed: true,
  };
}
