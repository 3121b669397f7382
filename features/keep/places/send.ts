import { CloudUpload } from 'lucide-react';
import type { Sending } from '@/core/contracts/remote';
import { api } from '../../api/client';
import { isCopied } from '../../pictures/clipboard';
import { onServer, type PagePlace } from './contract';

export const send: PagePlace<'send'> = {
  icon: CloudUpload,
  async do(shot, { remoteId }) {
    await onServer(shot);
    return sent(await api.send(shot.id, remoteId));
  },
};

/** A sending; where others see it by an address, that is copied. */
export const sent = async (sending: Sending): Promise<Sending & { copied: boolean }> => ({
  ...sending,
  copied: sending.address !== null && (await isCopied(sending.address)),
});
