import { pageShotSchema, type PageShot } from '@/core/contracts/page';
import { provenanceOf } from '../pages/provenance';
import { checkPagesAllowed, reachNow } from '../pages/reachNow';
import { takePage } from '../pages/takePage';
import { storeShot } from '../shots/store';
import { rememberWords } from '../words/known';
import { addSlow, slowTakes } from './slow';
import { thenSaid } from './then';

const PAGES = 'pages';

/** Asks for a web page. @throws Fault 403 */
export async function addPage(wish: PageShot): Promise<string> {
  await checkPagesAllowed();
  return addSlow(PAGES, wish, wish.id);
}

async function take(
  { allowPrivate, title, id: _, then, ...page }: PageShot,
  id: string,
  tell: (words: string) => void,
  signal: AbortSignal,
): Promise<string[]> {
  const taken = await takePage(page, await reachNow(page.address, allowPrivate), tell, signal);
  signal.throwIfAborted();
  const provenance = provenanceOf(taken);
  if (taken.words) rememberWords(provenance, taken.words);
  await storeShot({
    ...{ id, picture: taken.bytes, provenance, titleMade: title === undefined },
    title: title ?? (taken.title || undefined),
  });
  return [...taken.said, ...(await thenSaid(then, { id, leaves: { format: null, size: null } }))];
}

slowTakes({ kind: PAGES, wish: pageShotSchema, take });
