import { useEffect, useRef } from 'react';
import { useAction } from '../keys/useAction';
import { callField } from '../shelf/search/asked';
import { useTrail } from '../trail/trail';
import { navigate, usePath } from '../thread/navigate';

const SHOT = /^\/shots\/([0-9a-f-]{36})/i;

/** Keys that lead to the views; Mark and Keep open the shot that was in hand last. */
export function GoKeys() {
  const path = usePath();
  const inHand = useRef<string | null>(null);
  const newest = useTrail((s) => s.entries.find((entry) => !entry.gone)?.id);
  useEffect(() => {
    inHand.current = SHOT.exec(path)?.[1] ?? inHand.current;
  }, [path]);
  const shot = (end: string) => {
    const id = inHand.current ?? newest;
    if (!id) return false;
    navigate(`/shots/${id}${end}`);
    return true;
  };
  useAction('go.take', () => navigate('/take'));
  useAction('go.shelf', () => navigate('/shelf'));
  useAction('go.search', () => {
    navigate('/shelf');
    callField();
  });
  useAction('go.mark', () => shot(''));
  useAction('go.keep', () => shot('/keep'));
  return null;
}
