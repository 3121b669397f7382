import { useState } from 'react';
import { api, messageOf } from '../api/client';
import { dropOwnDraft } from '../outbox/drafts';
import { navigate } from '../shell/navigate';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { session, useSession } from './session';

/** Another tab stored this shot first: both versions live on, and the person says how. */
export function StaleBanner({ onReload }: { onReload: () => void }) {
  const stored = useSession((s) => s.stored);
  const [problem, setProblem] = useState<string | null>(null);
  if (stored.name !== 'stale') return null;
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
  return (
    <div className="border-b border-line bg-paper px-3.5 py-2">
      <Problem>
        This shot was changed in another tab since you opened it here. Your version is held in this
        browser and not lost.
        {problem && <span className="block">{problem}</span>}
        <span className="mt-2 flex gap-2">
          <Button onClick={() => void goOn()}>Go on with mine as a new shot</Button>
          <Button look="quiet" onClick={() => void showOther()}>
            Drop mine and show the other
          </Button>
        </span>
      </Problem>
    </div>
  );
}
