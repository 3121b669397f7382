import { CheckCircle2, ClipboardCopy, LoaderCircle, X } from 'lucide-react';
import type { Shot } from '@/core/contracts/shot';
import { useState } from 'react';
import type { Link } from '@/core/contracts/link';
import { api, thumbnailUrl } from '../api/client';
import { followLink } from '../thread/navigate';
import { copyText } from '../pictures/clipboard';
import { Button } from '../ui/Button';
import { formatBytes } from '../ui/format';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { notify } from '../notices/noticeStore';
import type { Result } from './keepEverywhere';

interface Props {
  results: Result[];
  shot: Shot;
  onClose: () => void;
}

/** What was kept and where; what could not be, why, and one click to try again. */
export function Results({ results, shot, onClose }: Props) {
  return (
    <div
      role="status"
      aria-live="polite"
      className="relative flex max-h-[128px] grow flex-col gap-2 overflow-auto pr-9"
    >
      <IconButton label="Close the results" className="absolute top-0 right-0" onClick={onClose}>
        <X size={16} strokeWidth={1.75} />
      </IconButton>
      {results.map((result) => (
        <Outcome key={result.key} result={result} shot={shot} />
      ))}
    </div>
  );
}

const failureOf = ({ not, place, problem, gone }: Result): string =>
  gone
    ? `${not ?? `Not kept in ${place}.`} The shot was deleted meanwhile.`
    : `${not ?? `Not kept in ${place}.`} ${problem ?? ''} The shot itself is safe.`;

function Outcome({ result, shot }: { result: Result; shot: Shot }) {
  if (result.state === 'failed') {
    return (
      <Problem reason={result.reason} action={<Button onClick={result.again}>Try again</Button>}>
        {failureOf(result)}
      </Problem>
    );
  }
  const { copy, link } = result;
  return (
    <div
      className="flex items-center gap-3 rounded-[8px] border border-petrol bg-card p-2"
      data-testid="kept"
    >
      {result.state === 'working' ? (
        <LoaderCircle size={20} strokeWidth={1.75} aria-hidden />
      ) : (
        <img
          src={thumbnailUrl(shot)}
          alt=""
          className="h-12 w-16 rounded-[4px] border border-line object-cover"
        />
      )}
      <div className="min-w-0 grow">
        <p className="flex items-center gap-1.5 font-bold">
          {result.state === 'done' && (
            <CheckCircle2
              size={16}
              strokeWidth={1.75}
              className="shrink-0 text-petrol"
              aria-hidden
            />
          )}
          {result.state === 'working'
            ? `Keeping in ${result.place} …`
            : copy
              ? `Kept in ${result.place}`
              : result.said}
        </p>
        {copy && (
          <p className="font-measure text-[12px] break-all text-soft" data-testid="path">
            {copy.path}
          </p>
        )}
        {copy && <p className="text-[13px] text-soft">{formatBytes(copy.bytes)}</p>}
        {link && <LinkLine link={link} />}
      </div>
      {copy && (
        <IconButton label="Copy path" onClick={() => void copyPath(copy.path)}>
          <ClipboardCopy size={16} strokeWidth={1.75} />
        </IconButton>
      )}
    </div>
  );
}

/** The address, where others reach it, and the way to take it back. */
function LinkLine({ link }: { link: Link }) {
  const [gone, setGone] = useState(false);
  const address = link.openAddress ?? link.address;
  if (gone)
    return <p className="text-[13px] text-soft">Taken back: the address shows nothing now.</p>;
  return (
    <>
      <p className="font-measure text-[12px] break-all">
        <a href={link.path} target="_blank" rel="noreferrer" className="text-petrol underline">
          {address}
        </a>
      </p>
      {!link.openAddress && (
        <p className="text-[13px] text-soft">
          Reached from this computer only.{' '}
          <a href="/setup/sending" onClick={followLink} className="text-petrol underline">
            Open it to others
          </a>
        </p>
      )}
      <Button look="quiet" onClick={() => void api.takeBack(link.id).then(() => setGone(true))}>
        Take the link back
      </Button>
    </>
  );
}

async function copyPath(path: string): Promise<void> {
  try {
    await copyText(path);
    notify({ key: 'path', tone: 'good', title: 'Path copied', lines: [path] });
  } catch {
    notify({
      key: 'path',
      tone: 'bad',
      title: 'The browser did not allow copying.',
      lines: [path],
    });
  }
}
