import { useCallback, useEffect, useState } from 'react';
import type { PhoneOffer } from '@/core/contracts/phone';
import { ApiError, messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { noteOffered, offeredHere } from './offered';

/** It is asked so often whether the picture is there, ms. */
const PAUSE = 1_000;

export interface Waiting {
  offer: PhoneOffer | null;
  problem: { words: string; doorClosed: boolean } | null;
  /** Makes another address, in place of the one before. */
  renew: () => void;
}

const goesOn = ({ state }: PhoneOffer): boolean => state === 'waiting' || state === 'arriving';

/** What became of an address that this tab has; another tab may have made one in its place. */
async function look(own: PhoneOffer): Promise<PhoneOffer> {
  const { offer } = await api.phone();
  return offer?.id === own.id ? offer : { ...own, state: 'ended' };
}

/** The address that this tab had before it was loaded anew, else a new one. */
async function begin(before: string | null): Promise<PhoneOffer | null> {
  const known = before ? (await api.phone()).offer : null;
  return known?.id === before ? known : (await api.makePhoneAddress()).offer;
}

/** An address for a phone, and what becomes of it, as long as somebody waits. */
export function usePhone(): Waiting {
  const [offer, setOffer] = useState<PhoneOffer | null>(null);
  const [problem, setProblem] = useState<Waiting['problem']>(null);
  const [round, setRound] = useState(0);
  useEffect(() => {
    let wanted = true;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let own: PhoneOffer | null = null;
    const again = (pause: number) => {
      const now = own;
      if (now && goesOn(now)) timer = setTimeout(() => void look(now).then(tell, failed), pause);
    };
    const tell = (now: PhoneOffer | null) => {
      if (!wanted) return;
      own = now;
      setOffer(now);
      setProblem(null);
      noteOffered(now && goesOn(now) ? now.id : null);
      again(PAUSE);
    };
    const failed = (error: unknown) => {
      if (!wanted) return;
      const doorClosed = error instanceof ApiError && error.code === 'door-closed';
      setProblem({ words: messageOf(error), doorClosed });
      // The server may only be away for a moment.
      again(PAUSE * 3);
    };
    begin(round === 0 ? offeredHere() : null).then(tell, failed);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [round]);
  const renew = useCallback(() => setRound((n) => n + 1), []);
  return { offer, problem, renew };
}

/** Nobody waits any more: the address ends. */
export function stopWaiting(offer: PhoneOffer | null): void {
  noteOffered(null);
  if (offer?.state === 'waiting') void api.withdrawPhoneAddress(offer.id).catch(() => undefined);
}
