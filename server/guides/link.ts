import type { z } from 'zod';
import type { Link, linkInputSchema } from '@/core/contracts/link';
import { insertLink } from '../links/links';
import { readyGuide, withMoving, writeGuide } from './write';

/**
 * An address under which the guide is seen as it is now. Where one of its shots is erased, or what
 * that hides is dropped, the link ends. @throws Fault 404, 409
 */
export async function linkGuide(
  id: string,
  input: z.output<typeof linkInputSchema>,
  signal?: AbortSignal,
): Promise<Link> {
  const ready = await readyGuide(id, signal);
  const { shows } = ready;
  const material = await withMoving(ready, 'html', signal);
  const [page] = await writeGuide('html', material, signal);
  if (!page) throw new Error('A guide became no page.');
  const { title } = material.page;
  const seen = { bytes: page.bytes, width: 0, height: 0, title, description: '' };
  return insertLink({ guideId: id, shows }, seen, input);
}
