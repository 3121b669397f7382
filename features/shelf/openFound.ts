import type { ShotSummary } from '@/core/contracts/shot';
import { navigate } from '../thread/navigate';

/** Opens a shot; a clip at the picture on which what was asked for stands. */
export function openFound({ id, found }: Pick<ShotSummary, 'id' | 'found'>): void {
  if (found?.moment === undefined) navigate(`/shots/${id}`);
  else navigate(`/clips/${id}`, 'push', `?at=${found.moment}`);
}
