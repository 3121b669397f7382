import { Square } from 'lucide-react';
import type { ClipJob } from '@/core/contracts/clipCopy';
import { dragOut } from '../pictures/dragOut';
import { Button } from '../ui/Button';
import { formatBytes } from '../ui/format';
import { Problem } from '../ui/Problem';
import { Progress } from '../ui/Progress';

interface Props {
  job: ClipJob;
  /** What is said once it is written to no folder. */
  written: string;
  /** Where it can be dragged from then. */
  file?: { type: string; name: string; url: string };
  onStop: () => void;
}

const sentSay = ({ sending }: ClipJob): string | null =>
  sending &&
  (sending.state === 'sent'
    ? `Sent to ${sending.remoteName}`
    : `Waits to be sent to ${sending.remoteName}. ${sending.problem ?? ''}`);

/** How far a file of a clip is written, and what became of it. */
export function HowFar({ job, written, file, onStop }: Props) {
  if (job.state === 'stopped') return <Problem>{job.problem}</Problem>;
  if (job.state === 'done') {
    return (
      <p role="status" className="text-[13px] break-words">
        <span className="font-bold">{job.copy ? 'Kept' : (sentSay(job) ?? written)}</span>{' '}
        {job.bytes !== null && formatBytes(job.bytes)}
        {job.copy && <span className="block font-measure">{job.copy.path}</span>}
        {file && !job.copy && !job.sending && (
          <a
            href={file.url}
            download={file.name}
            draggable
            onDragStart={(event) =>
              dragOut(event, { ...file, url: new URL(file.url, window.location.href).href })
            }
            className="mt-1 block text-petrol underline"
          >
            Drag it where it shall be, or save it
          </a>
        )}
      </p>
    );
  }
  return (
    <div className="flex items-center gap-2">
      <Progress label="Written" share={job.progress} left={job.left} />
      <Button icon={<Square size={16} strokeWidth={1.75} />} onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}
