import { Link2 } from 'lucide-react';
import type { Link, LinkInput } from '@/core/contracts/link';
import { addressOf } from '@/core/places/link';
import { api } from '../../api/client';
import { isCopied } from '../../pictures/clipboard';
import { onServer, type PagePlace } from './contract';

export const link: PagePlace<'link'> = {
  icon: Link2,
  async do(shot) {
    await onServer(shot);
    return linked(shot.id, {});
  },
};

/** Makes a link and copies its address, where the browser lets the page. */
export async function linked(
  id: string,
  input: LinkInput,
): Promise<{ made: Link; address: string; copied: boolean }> {
  const made = await api.makeLink(id, input);
  const address = addressOf(made);
  return { made, address, copied: await isCopied(address) };
}
