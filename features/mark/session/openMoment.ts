import { api } from '../../api/client';
import { decodeFrame } from '../../pictures/pictures';
import { openId, session, update } from './session';

/** The picture that was asked for last and is not fetched yet. */
let wanted: number | null = null;
let fetching: Promise<void> | null = null;

/**
 * Marks another picture of the clip that is open. Each takes the server a while: while one is
 * fetched, only the last of those that are asked for meanwhile is fetched after it.
 * @param picture its number
 */
export async function openMoment(picture: number): Promise<void> {
  wanted = picture;
  fetching ??= fetchWanted().finally(() => (fetching = null));
  await fetching;
}

async function fetchWanted(): Promise<void> {
  while (wanted !== null) {
    const next = wanted;
    wanted = null;
    await show(next);
  }
}

async function show(picture: number): Promise<void> {
  const id = openId();
  const { moment } = id === null ? { moment: null } : session();
  if (id === null || !moment || picture === moment.picture) return;
  const at = moment.times[picture] ?? 0;
  const frame = await decodeFrame(await api.clipFrame(id, at));
  const now = openId() === id ? session() : null;
  if (!now?.moment) return frame.close();
  // Turned or adjusted it follows by itself, as after any change of it.
  const isPlain = now.plain === now.frame;
  const isBare = now.picture === now.plain;
  update({
    frame,
    ...(isPlain && { plain: frame }),
    ...(isPlain && isBare && { picture: frame }),
    moment: { ...now.moment, picture },
  });
  window.history.replaceState(null, '', `${window.location.pathname}?at=${at}`);
}
