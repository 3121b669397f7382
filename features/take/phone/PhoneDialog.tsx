import { useEffect, useRef } from 'react';
import { copyText } from '../../pictures/clipboard';
import { followLink, navigate } from '../../thread/navigate';
import { notify } from '../../notices/noticeStore';
import { beginEntry } from '../../trail/trail';
import { Button } from '../../ui/Button';
import { formatTime } from '../../ui/format';
import { Modal } from '../../ui/Modal';
import { Problem } from '../../ui/Problem';
import type { PhoneOffer } from '@/core/contracts/phone';
import { noteOffered } from './offered';
import { Qr } from './Qr';
import { stopWaiting, usePhone } from './usePhone';

interface Props {
  openInMark: boolean;
  onClose: () => void;
}

/** Waits for one picture of a phone, which comes in by an address of its own. */
export function PhoneDialog({ openInMark, onClose }: Props) {
  const { offer, problem, renew } = usePhone();
  const last = useRef(offer);
  useEffect(() => {
    last.current = offer;
    if (!offer?.shot) return;
    arrived(offer.shot, openInMark);
    onClose();
  }, [offer, openInMark, onClose]);
  // What is in it has the focus from the start.
  if (!offer && !problem) return null;
  const close = () => {
    stopWaiting(last.current);
    onClose();
  };
  return (
    <Modal
      open
      title="From a phone"
      description="Point the phone’s camera at the code, then photograph something or choose a picture. Phone and computer must be in the same network."
      onClose={close}
    >
      {problem && <Trouble {...problem} onRenew={renew} />}
      {offer && !problem && <Address offer={offer} onRenew={renew} />}
    </Modal>
  );
}

function arrived(shot: string, openInMark: boolean): void {
  noteOffered(null);
  beginEntry(shot, 'From the phone', new Date().toISOString());
  if (openInMark) navigate(`/shots/${shot}`);
  notify({
    key: `phone ${shot}`,
    tone: 'good',
    title: 'From the phone',
    lines: ['It is on the Shelf.'],
    href: `/shots/${shot}`,
    picture: `/api/shots/${shot}/thumbnail?revision=1`,
  });
}

interface TroubleProps {
  words: string;
  doorClosed: boolean;
  onRenew: () => void;
}

function Trouble({ words, doorClosed, onRenew }: TroubleProps) {
  if (!doorClosed) {
    return <Problem action={<Button onClick={onRenew}>Try again</Button>}>{words}</Problem>;
  }
  return (
    <Problem>
      {words}{' '}
      <a href="/setup/sending" onClick={followLink} className="underline">
        Go to Setup › Sending
      </a>
    </Problem>
  );
}

function Address({ offer, onRenew }: { offer: PhoneOffer; onRenew: () => void }) {
  const { address, endsAt, state, problem } = offer;
  if (state === 'ended') {
    return (
      <Problem action={<Button onClick={onRenew}>Make another address</Button>}>
        This address has ended. No picture came.
      </Problem>
    );
  }
  return (
    <div className="flex flex-wrap items-start gap-5">
      <Qr text={address} />
      <div className="min-w-0 flex-1 basis-52">
        <p className="mb-2 font-measure text-[13px] break-all">{address}</p>
        <Button className="mb-3" onClick={() => void copyText(address)}>
          Copy the address
        </Button>
        <p className="mb-2 text-soft">For one picture, until {formatTime(endsAt)}.</p>
        <p role="status">
          {state === 'arriving' ? 'A picture is coming in …' : 'Waiting for the phone.'}
        </p>
        {problem && <Problem>{problem} The address is still good.</Problem>}
      </div>
    </div>
  );
}
