import { useEffect, useState } from 'react';
import { sheetOf } from '@/core/document/view';
import { contrastsBelow } from '@/core/paint/contrasts';
import type { Mark } from '@/core/marks/registry';
import { contrastArea, hasContrast, withHalo } from '@/core/paint/standsOut';
import { WatchedPicture, letGoPicture } from '../../pictures/pictures';
import { amendDocument } from '../session/changes';
import { shownDocument } from '../session/moment';
import { sourcesOf } from '../session/scene';
import { session, openId } from '../session/session';

/** So many pixels are looked at before the next frame; more are left to the worker. */
const AT_ONCE = 150_000;
/** Marks that change this fast after each other are looked at together, ms. */
const PAUSE = 60;

function isQuick(marks: readonly Mark[]): boolean {
  const { tools, view } = sourcesOf();
  let pixels = 0;
  for (const mark of marks) {
    const area = hasContrast(mark) ? contrastArea(mark, tools, sheetOf(view)) : null;
    pixels += area ? area.width * area.height : 0;
    if (pixels > AT_ONCE) return false;
  }
  return true;
}

/** The marks of the document with others in their place, or above all where they are new. */
function withThese(marks: readonly Mark[]): readonly Mark[] {
  const stored = shownDocument(session()).marks;
  const now = new Map(marks.map((mark) => [mark.id, mark]));
  const placed = stored.map((mark) => {
    const next = now.get(mark.id);
    now.delete(mark.id);
    return next ?? mark;
  });
  return [...placed, ...now.values()];
}

/** The contrast of a mark with what is below it, worked out here and now; null where it means nothing. */
const contrastHere = (mark: Mark): number | null =>
  contrastsBelow(sourcesOf(withThese([mark])), new Set([mark.id])).get(mark.id) ?? null;

/**
 * The marks with a halo where each needs one. Where that takes longer than a frame they stay as they
 * are, and get it a moment later in the same step. Tests without a canvas leave them as they are.
 */
export function standingOut(marks: readonly Mark[]): readonly Mark[] {
  if (typeof OffscreenCanvas === 'undefined') return marks;
  if (isQuick(marks)) {
    const ids = new Set(marks.map(({ id }) => id));
    const ratios = contrastsBelow(sourcesOf(withThese(marks)), ids);
    return marks.map((mark) => withHalo(mark, ratios.get(mark.id) ?? null));
  }
  for (const { id } of marks) pending.add(id);
  later();
  return marks;
}

/** The picture is another one: every mark gets the edge that it needs there, in the same step. */
export function standOutAgain(): void {
  for (const mark of shownDocument(session()).marks) if (hasContrast(mark)) pending.add(mark.id);
  if (pending.size > 0) later();
}

/** Ids of marks whose contrast is to be looked at. */
const pending = new Set<string>();
let timer: ReturnType<typeof setTimeout> | undefined;
let looking: Promise<void> = Promise.resolve();
let held: WatchedPicture | null = null;

function later(): void {
  clearTimeout(timer);
  timer = setTimeout(() => {
    looking = look().catch(() => lookNow());
  }, PAUSE);
}

function heldPicture(): WatchedPicture {
  const { picture } = session();
  if (held?.picture !== picture) held = new WatchedPicture(picture);
  return held;
}

async function look(): Promise<void> {
  const { id, history } = session();
  const there = new Set(history.document.marks.map((mark) => mark.id));
  for (const one of pending) if (!there.has(one)) pending.delete(one);
  const asked = new Map(
    history.document.marks.filter((m) => pending.has(m.id)).map((m) => [m.id, m]),
  );
  const ratios = await heldPicture().contrasts(history.document, [...asked.keys()]);
  if (openId() !== id) return;
  const now = new Map(session().history.document.marks.map((mark) => [mark.id, mark]));
  for (const [one, mark] of asked) {
    // Whatever changed meanwhile is looked at anew.
    const same = ratios !== null && now.get(one) === mark;
    if (same || !now.has(one)) pending.delete(one);
    else ratios?.delete(one);
  }
  if (ratios) giveHalos(ratios);
  if (pending.size > 0) later();
}

function giveHalos(ratios: ReadonlyMap<string, number | null>): void {
  amendDocument((draft) => {
    for (const mark of draft.marks) {
      const ratio = ratios.get(mark.id);
      if (ratio === undefined) continue;
      const { halo } = withHalo(mark, ratio);
      if (halo) mark.halo = halo;
      else delete mark.halo;
    }
  });
}

/** What is still to be looked at is looked at here, before the shot is left. */
export function lookNow(): void {
  clearTimeout(timer);
  if (pending.size === 0 || openId() === null) return;
  const ratios = contrastsBelow(sourcesOf(), pending);
  pending.clear();
  giveHalos(ratios);
}

/** Resolves when every mark of the open shot has the halo it needs. */
export async function allStandOut(): Promise<void> {
  await looking;
  lookNow();
}

/** The shot is left: what was not looked at yet is, and nothing of it is kept here. */
export function stopStandingOut(): void {
  lookNow();
  forgetStandingOut();
}

/** What is open here is not what counts any more. */
export function forgetStandingOut(): void {
  clearTimeout(timer);
  pending.clear();
  if (held) void letGoPicture().catch(() => undefined);
  held = null;
}

/** A mark under a hand changes with every frame; its contrast is told when it rests so long, ms. */
const REST = 150;

/** The contrast of a mark with what is below it, as soon as it rests. */
export function useContrast(mark: Mark | undefined): number | null {
  const [known, setKnown] = useState<{ id: string; ratio: number | null } | null>(null);
  const means = mark !== undefined && hasContrast(mark);
  useEffect(() => {
    if (!mark || !means) return;
    let wanted = true;
    const tell = (ratio: number | null) => wanted && setKnown({ id: mark.id, ratio });
    const ask = setTimeout(() => {
      if (isQuick([mark])) {
        tell(contrastHere(mark));
        return;
      }
      const document = { ...session().history.document, marks: [...withThese([mark])] };
      heldPicture()
        .contrasts(document, [mark.id])
        .then(
          (ratios) => tell(ratios?.get(mark.id) ?? null),
          () => tell(null),
        );
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(ask);
    };
  }, [mark, means]);
  return means && known?.id === mark.id ? known.ratio : null;
}
