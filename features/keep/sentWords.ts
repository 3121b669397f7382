import type { Sending } from '@/core/contracts/remote';
import { saidOf } from '@/core/keep/saidOf';
import { copyText } from '../pictures/clipboard';

/** What became of a copy for a remote folder; where others see it by an address, that is copied. */
export async function sentWords(sending: Sending): Promise<string> {
  const { address } = sending;
  if (address === null) return saidOf(sending);
  const copied = await copyText(address).then(
    () => true,
    () => false,
  );
  return saidOf(sending, copied);
}
