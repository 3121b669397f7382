import { useState } from 'react';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { dropOwnDraft } from '../../outbox/drafts';
import { navigate } from '../../thread/navigate';
import { Button } from '../../ui/Button';
import { session } from '../session/session';

/**
 * Another tab stored this shot first: both versions live on, and the person says how. It stands
 * where the strip does, as high, so the picture stays where it is.
 */
export function StaleBanner({ onReload }: { onReload: () => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const goOn = async () => {
    const { id, title, history } = session();
    try {
      const fresh = await api.duplicate(id, {
        id: crypto.randomUUID(),
        title: `${title} (2)`.slice(-300),
        document: history.document,
      });
      await dropOwnDraft(id);
      navigate(`/shots/${fresh.id}`);
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const showOther = async () => {
    await dropOwnDraft(session().id);
    onReload();
  };
  const what = 'It was changed in another tab meanwhile.';
  const safe = 'Your version is held in this browser and not lost.';
  return (
    <div className="flex h-[46px] shrink-0 items-center gap-3 border-b border-line bg-card px-3.5">
      <p role="alert" title={`${problem ?? what} ${safe}`} className="min-w-0 grow leading-[18px]">
        <span className="block truncate font-bold text-brick">{problem ?? what}</span>
        <span className="block truncate text-[13px] text-soft">{safe}</span>
      </p>
      <Button className="shrink-0" onClick={() => void goOn()}>
        Go on with mine as a new shot
      </Button>
      <Button look="quiet" className="shrink-0" onClick={() => void showOther()}>
        Drop mine and show the other
      </Button>
    </div>
  );
}
