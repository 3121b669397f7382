import { ArchiveRestore, ClipboardCopy, Diff, FolderDown, PencilLine, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { Copy } from '@/core/contracts/folder';
import type { Programs } from '@/core/contracts/program';
import { sourceLabels, sourceNames } from '@/core/contracts/provenance';
import type { ShotSummary } from '@/core/contracts/shot';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { Thumbnail } from '../pictures/Thumbnail';
import { copyText } from '../pictures/clipboard';
import { navigate } from '../thread/navigate';
import { notify } from '../notices/noticeStore';
import { Button } from '../ui/Button';
import { formatBytes, formatMoment } from '../ui/format';
import { Confirm } from '../ui/Confirm';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { usePrograms } from '../take/offers';
import { ShotName } from '../names/ShotName';
import { ShotTags } from '../tags/ShotTags';
import { Hits } from './Hits';
import { openFound } from './openFound';
import { ShotLinks } from '../setup/sending/ShotLinks';
import { WordsFound } from './WordsFound';
import { useAnswer } from '../api/useAnswer';

interface Props {
  shot: ShotSummary;
  onChanged: (id: string, change: Partial<ShotSummary>) => void;
  onGone: (id: string) => void;
}

/** The chosen shot: its name, facts, kept copies, and what can be done with it. */
export function ShotFacts({ shot, onChanged, onGone }: Props) {
  const [problem, setProblem] = useState<string | null>(null);
  const [erasing, setErasing] = useState(false);
  const programs = usePrograms();
  const { answer: copies, problem: unknown } = useAnswer(() => api.copies(shot.id), shot.id);
  const act = async (work: Promise<unknown>, then: () => void) => {
    try {
      await work;
      then();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const bin = () =>
    void act(api.bin(shot.id), () => {
      onGone(shot.id);
      notify({
        key: 'binned',
        tone: 'plain',
        title: `“${shot.title}” is in the bin`,
        action: {
          label: 'Restore',
          act: () => void api.restore(shot.id).then(() => navigate(`/shots/${shot.id}`)),
        },
      });
    });
  const source = sourceNames.find((name) => name === shot.source);
  const icon = { size: 18, strokeWidth: 1.75 };
  return (
    <aside
      aria-label="About this shot"
      className="flex w-[262px] shrink-0 flex-col border-l border-line bg-paper"
    >
      <div className="flex min-h-0 grow flex-col gap-4 overflow-auto p-3">
        <div className="flex flex-wrap">
          <ShotName shot={shot} onChange={(title) => onChanged(shot.id, { title })} />
        </div>
        <div className="relative h-40 shrink-0 overflow-hidden rounded-[6px] border border-line bg-card">
          <Thumbnail shot={shot} />
          <Hits shot={shot} />
        </div>
        <ShotTags shot={shot} onChange={(tags) => onChanged(shot.id, { tags })} />
        {problem && <Problem>{problem}</Problem>}
        <dl className="grid grid-cols-[60px_1fr] gap-x-2">
          <dt className="text-soft">From</dt>
          <dd>{source ? sourceLabels[source] : shot.source}</dd>
          <dt className="text-soft">Taken</dt>
          <dd>{formatMoment(shot.takenAt)}</dd>
          <dt className="text-soft">Size</dt>
          <dd className="font-measure text-[13px]">
            {shot.width} × {shot.height} px
          </dd>
        </dl>
        <WordsFound shot={shot} />
        <section aria-label="Kept copies">
          <h2 className="mb-1 font-name text-base">Kept copies</h2>
          {unknown && <Problem>{unknown}</Problem>}
          {copies?.length === 0 && <p className="text-soft">None yet.</p>}
          <ul className="flex flex-col gap-1">
            {copies?.map((copy) => (
              <CopyItem key={copy.id} copy={copy} programs={programs} onProblem={setProblem} />
            ))}
          </ul>
        </section>
        <ShotLinks shot={shot.id} onProblem={setProblem} />
      </div>
      <div className="flex flex-wrap gap-1.5 border-t border-line p-3">
        {shot.binnedAt ? (
          <>
            <Button
              look="next"
              className="grow"
              icon={<ArchiveRestore {...icon} />}
              onClick={() => void act(api.restore(shot.id), () => onGone(shot.id))}
            >
              Restore
            </Button>
            <Button look="danger" onClick={() => setErasing(true)}>
              Delete for good
            </Button>
          </>
        ) : (
          <>
            <Button
              className="grow px-2!"
              icon={<PencilLine {...icon} />}
              onClick={() => openFound(shot)}
            >
              Mark
            </Button>
            <Button
              className="grow px-2!"
              icon={<FolderDown {...icon} />}
              onClick={() => navigate(`/shots/${shot.id}/keep`)}
            >
              Keep
            </Button>
            <IconButton
              label="Compare with the untouched picture"
              onClick={() => navigate(`/compare/${shot.id}`)}
              className="border border-edge bg-card"
            >
              <Diff {...icon} />
            </IconButton>
            <IconButton label="Put in the bin" onClick={bin} className="border border-edge bg-card">
              <Trash2 {...icon} />
            </IconButton>
          </>
        )}
      </div>
      <Confirm
        open={erasing}
        title="Delete this shot for good?"
        description="Its frame, marks and history are erased and cannot come back. Files kept in folders stay where they are."
        verb="Delete for good"
        onYes={() => void act(api.erase(shot.id), () => onGone(shot.id))}
        onClose={() => setErasing(false)}
      />
    </aside>
  );
}

interface CopyProps {
  copy: Copy;
  programs: Programs | null;
  onProblem: (words: string) => void;
}

function CopyItem({ copy, programs, onProblem }: CopyProps) {
  const name = copy.path.split('/').at(-1) ?? copy.path;
  return (
    <li className="rounded-[7px] border border-line bg-card px-2 py-1.5">
      <div className="flex items-center gap-1">
        <div className="min-w-0 grow" title={copy.path}>
          <p className="truncate font-bold">{name}</p>
          <p className="truncate text-[13px] text-soft">
            {copy.folderName ?? 'a removed folder'} · {formatBytes(copy.bytes)}
          </p>
        </div>
        <IconButton
          label={`Copy the path of ${name}`}
          onClick={() =>
            void copyText(copy.path).then(() =>
              notify({ key: 'path', tone: 'good', title: 'Path copied', lines: [copy.path] }),
            )
          }
        >
          <ClipboardCopy size={16} strokeWidth={1.75} />
        </IconButton>
      </div>
      {programs && programs.programs.length > 0 && (
        <div className="flex flex-wrap gap-1">
          {programs.programs.map((program) => (
            <Button
              key={program.name}
              look="quiet"
              onClick={() =>
                void api
                  .openCopy(copy.id, program.name)
                  .catch((error: unknown) => onProblem(messageOf(error)))
              }
            >
              {program.name}
            </Button>
          ))}
        </div>
      )}
    </li>
  );
}
