import { api } from '../../api/client';
import { decodeFrame } from '../../pictures/pictures';
import { openId, session, update } from './session';

/** The picture that was asked for last: those before it come too late. */
let wanted = 0;

/** Marks another picture of the clip that is open. @param picture its number */
export async function openMoment(picture: number): Promise<void> {
  const { id, moment } = session();
  if (!moment || picture === moment.picture) return;
  wanted += 1;
  const mine = wanted;
  const at = moment.times[picture] ?? 0;
  const frame = await decodeFrame(await api.clipFrame(id, at));
  const now = openId() === id ? session() : null;
  if (!now?.moment || mine !== wanted) return frame.close();
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
