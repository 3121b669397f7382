import { useCallback, useEffect, useState } from 'react';
import type { PhoneOffer } from '@/core/contracts/phone';
import { api, messageOf } from '../../api/client';
import { noteOffered, offeredHere } from './offered';

/** It is asked so often whether the picture is there, ms. */
const PAUSE = 1_000;

export interface Waiting {
  offer: PhoneOffer | null;
  problem: string | null;
  /** Makes another address, in place of the one before. */
  renew: () => void;
}

/** An address for a phone, and what becomes of it, as long as somebody waits. */
export function usePhone(): Waiting {
  const [offer, setOffer] = useState<PhoneOffer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  useEffect(() => {
    let wanted = true;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const tell = ({ offer: now }: { offer: PhoneOffer | null }) => {
      if (!wanted) return;
      setOffer(now);
      setProblem(null);
      noteOffered(now && now.state !== 'ended' ? now.id : null);
      if (now && now.state !== 'ended' && now.state !== 'arrived') timer = setTimeout(ask, PAUSE);
    };
    const failed = (error: unknown) => {
      if (!wanted) return;
      setProblem(messageOf(error));
      // The server may only be away for a moment.
      if (offeredHere()) timer = setTimeout(ask, PAUSE * 3);
    };
    const ask = () => void api.phone().then(tell, failed);
    const begin = async () => {
      const before = round === 0 ? offeredHere() : null;
      const known = before ? await api.phone() : null;
      tell(known?.offer?.id === before && known ? known : await api.makePhoneAddress());
    };
    begin().catch(failed);
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
