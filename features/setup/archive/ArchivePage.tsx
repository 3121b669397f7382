import { useState } from 'react';
import { api } from '../../api/client';
import { useAnswer } from '../../api/useAnswer';
import { useFolders } from '../../keep/useFolders';
import { actThen } from '../../ui/act';
import { Problem } from '../../ui/Problem';
import { ByItself } from './ByItself';
import { Done, isGoing } from './Done';
import { In } from './In';
import { Out } from './Out';

const SOON = 700;
const LATER = 5_000;

/** Everything out of Rezzik, and in again. */
export function ArchivePage() {
  const folders = useFolders();
  const [trouble, setTrouble] = useState<string | null>(null);
  const { answer, problem, again } = useAnswer(api.archives, 'archives', {
    next: (now) => (now?.archives.some(isGoing) ? SOON : LATER),
  });
  const archives = answer?.archives ?? [];
  const act = actThen(() => {
    setTrouble(null);
    again();
    return Promise.resolve();
  }, setTrouble);
  return (
    <div className="flex max-w-3xl flex-col gap-4">
      <div>
        <h1 className="mb-1 font-name text-xl">Archive</h1>
        <p className="text-soft">
          All that is in Rezzik is yours: a zip of plain JSON and pictures, which other programs can
          read, too.
        </p>
      </div>
      {(trouble ?? problem) && <Problem>{trouble ?? problem}</Problem>}
      <Out folders={folders ?? []} archives={archives} act={act} />
      {answer && folders && <ByItself plan={answer.plan} folders={folders} act={act} />}
      <In archives={archives} act={act} />
      <Done archives={archives} act={act} />
    </div>
  );
}
