import { Download } from 'lucide-react';
import { useState } from 'react';
import type { FormatName } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { Button } from '../ui/Button';
import { formatBytes } from '../ui/format';
import { Key } from '../ui/Key';
import { Problem } from '../ui/Problem';
import { useHeldSpace } from '../ui/useHeldSpace';
import type { PictureState } from './usePicture';

interface Props {
  shot: Shot;
  picture: PictureState;
  format: FormatName;
  quality: number;
}

/** The picture as it will arrive, at actual pixels; Space held shows it before. */
export function Preview({ shot, picture, format, quality }: Props) {
  const { crop } = shot.document.view;
  const [actual, setActual] = useState(false);
  const before = useHeldSpace();
  const dots = window.devicePixelRatio;
  const beforeUrl = `/api/shots/${shot.id}/picture?format=png&r=${shot.revision}`;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="font-name text-lg">As it will arrive</h1>
        <span className="font-measure text-[13px] text-faint" aria-live="polite">
          {crop.width} × {crop.height} px
          {picture.blob && ` · ${formatBytes(picture.blob.size)}`}
          {format === 'jpeg' && ` · quality ${quality}`}
        </span>
        <span className="grow" />
        {format === 'jpeg' && (
          <span className="text-soft">
            Hold <Key>Space</Key>
            <span className="sr-only">Space</span> to see it before
          </span>
        )}
        <Button aria-pressed={actual} className="rounded-full" onClick={() => setActual(!actual)}>
          {actual ? 'Fit' : 'Actual pixels'}
        </Button>
        <Button
          className="rounded-full"
          icon={<Download size={16} strokeWidth={1.75} />}
          disabled={!picture.blob}
          onClick={() => picture.download()}
        >
          Download
        </Button>
      </div>
      {picture.problem && <Problem>{picture.problem}</Problem>}
      <div
        className={
          actual
            ? 'min-h-0 grow overflow-auto'
            : 'grid min-h-0 grow place-items-center overflow-hidden'
        }
      >
        {picture.url ? (
          <img
            src={before && format === 'jpeg' ? beforeUrl : picture.url}
            alt={`${shot.title}, as it will arrive`}
            className={
              actual
                ? 'max-w-none shadow-picture'
                : 'max-h-full min-h-0 max-w-full object-contain shadow-picture'
            }
            style={actual ? { width: crop.width / dots, height: crop.height / dots } : undefined}
          />
        ) : (
          !picture.problem && (
            <p role="status" className="text-soft">
              The picture is being made …
            </p>
          )
        )}
      </div>
    </>
  );
}
