import { film } from '@/server/tests/clipFilms';
import { post } from './hand';
import { appUrl } from './browser';

/** A clip of a small film, brought by the API. @returns its id */
export async function sendClip(title: string): Promise<string> {
  const id = crypto.randomUUID();
  const provenance = { source: 'desk', takenAt: new Date().toISOString(), display: 'Left' };
  await post('/api/clips', { id, title, provenance, type: 'video/x-matroska' });
  await fetch(`${appUrl()}/api/clips/${id}/pieces/0`, {
    method: 'PUT',
    body: new Uint8Array(film(30)),
  });
  await post(`/api/clips/${id}/end`, { pieces: 1 });
  return id;
}
