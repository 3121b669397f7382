import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { navigate } from '../thread/navigate';
import { notify } from '../notices/noticeStore';
import { session } from './session/session';

/** Opens the shot that was taken before or after this one; says so where there is none. */
export async function openNeighbour(which: 'older' | 'newer'): Promise<void> {
  const { id, provenance } = session();
  const cursor = `${new Date(provenance.takenAt).toISOString()}_${id}`;
  try {
    const place = which === 'older' ? { before: cursor } : { after: cursor };
    const { shots } = await api.shots({ ...place, limit: 1 });
    const [next] = shots;
    if (next) navigate(`/shots/${next.id}`);
    else notify({ key: 'neighbour', tone: 'plain', title: `There is no ${which} shot.` });
  } catch (error) {
    notify({ key: 'neighbour', tone: 'bad', title: 'Not opened', lines: [messageOf(error)] });
  }
}
