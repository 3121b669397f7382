import { Mail } from 'lucide-react';
import type { MailInput } from '@/core/contracts/mail';
import { api } from '../../api/client';
import { saveBlob } from '../../pictures/saveBlob';
import { onServer, wishOf, type PagePlace } from './contract';

export const mail: PagePlace<'mail'> = {
  icon: Mail,
  async do(shot) {
    await onServer(shot);
    return message(shot.id, wishOf(shot.leaves), false);
  },
};

/** Writes a message with the picture: a file to open, or into the mail drop of this computer. */
export async function message(
  id: string,
  wish: MailInput,
  drop: boolean,
): Promise<{ lies: 'saved' | 'drop' }> {
  if (drop) {
    await api.dropMail(id, wish);
    return { lies: 'drop' };
  }
  const { blob, name } = await api.mail(id, wish);
  saveBlob(blob, name);
  return { lies: 'saved' };
}
