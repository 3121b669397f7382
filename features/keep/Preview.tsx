import { Download, Printer, Share2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { FormatFacts } from '@/core/contracts/format';
import type { Shot } from '@/core/contracts/shot';
import { safeName } from '@/core/naming/safeName';
import { useLooks } from '../looks/lookStore';
import { withLook } from '@/core/document/look';
import { captionTellsWhere } from '@/core/keep/caption';
import { pictureQuery, type PictureWish } from '../api/picture';
import { dragOut } from '../pictures/dragOut';
import { saveBlob } from '../pictures/saveBlob';
import { navigate } from '../thread/navigate';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { formatBytes } from '../ui/format';
import { Key } from '../ui/Key';
import { Problem } from '../ui/Problem';
import { useHeldSpace } from '../ui/useHeldSpace';
import { SmallestSpot } from './Readable';
import type { PictureState } from './usePicture';
import { WorstSpot } from './WorstSpot';

interface Props {
  shot: Shot;
  picture: PictureState;
  wish: PictureWish;
  facts: FormatFacts | undefined;
  /** What came of keeping; it takes the place below the picture. */
  children?: ReactNode;
}

const icon = { size: 16, strokeWidth: 1.75 };

/** The picture as it will arrive, at actual pixels; Space held shows it before. */
export function Preview({ shot, picture, wish, facts, children }: Props) {
  const { crop } = shot.document.view;
  const [actual, setActual] = useState(false);
  const before = useHeldSpace();
  const dots = window.devicePixelRatio;
  const { made, url, making } = picture;
  /** Until a change is made, what is there is not yet what the name says. */
  const ready = making ? null : made;
  const own = made?.own ?? crop;
  const size = made ?? crop;
  const { quality: _, maxBytes: __, options: ___, ...sized } = wish;
  const beforeUrl = `/api/shots/${shot.id}/picture?${pictureQuery({ ...sized, format: 'png' })}&r=${shot.revision}`;
  const fileName = `${safeName(shot.title)}.${facts?.extension ?? wish.format}`;
  const lossy = facts?.quality ?? false;
  const isPage = wish.format === 'pdf';
  const raster = !isPage && wish.format !== 'tiff';
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="font-name text-lg">As it will arrive</h1>
        <span className="font-measure text-[13px] text-faint" aria-live="polite">
          {size.width} × {size.height} px
          {made && ` · ${formatBytes(made.blob.size)}`}
          {lossy && made && <span className="sr-only">{` · quality ${made.quality}`}</span>}
        </span>
        <span className="grow" />
        {lossy && (
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
          icon={<Download {...icon} />}
          disabled={!ready}
          onClick={() => ready && saveBlob(ready.blob, fileName)}
        >
          Download
        </Button>
        {ready && canShare(ready.blob, fileName) && (
          <Button
            className="rounded-full"
            icon={<Share2 {...icon} />}
            onClick={() => void share(ready.blob, fileName, shot.title)}
          >
            Share
          </Button>
        )}
        <IconButton
          label="Print"
          className="border border-edge bg-card"
          onClick={() => navigate(`/print/${shot.id}`)}
        >
          <Printer {...icon} />
        </IconButton>
      </div>
      <CaptionSays shot={shot} wish={wish} />
      {picture.problem && <Problem>{picture.problem}</Problem>}
      <div
        className={
          actual
            ? 'min-h-0 grow overflow-auto'
            : 'grid min-h-0 grow place-items-center overflow-hidden'
        }
      >
        {url && isPage ? (
          <object
            data={url}
            type="application/pdf"
            aria-label={`${shot.title}, as a page`}
            className="size-full"
          >
            <p className="text-soft">
              This browser does not show pages. Download it to look at it.
            </p>
          </object>
        ) : url ? (
          <img
            src={(before && lossy) || !raster ? beforeUrl : url}
            alt={`${shot.title}, as it will arrive`}
            onDragStart={(event) => {
              if (!ready) return event.preventDefault();
              dragOut(event, { type: ready.blob.type, name: fileName, url });
            }}
            className={
              actual
                ? 'max-w-none shadow-picture'
                : 'max-h-full min-h-0 max-w-full object-contain shadow-picture'
            }
            style={actual ? { width: size.width / dots, height: size.height / dots } : undefined}
          />
        ) : (
          !picture.problem && (
            <p role="status" className="text-soft">
              The picture is being made …
            </p>
          )
        )}
      </div>
      {/* Its height is kept, whatever is known or said, so that the picture never jumps. */}
      <div className="mt-3 flex h-[128px] shrink-0 items-start gap-6 overflow-hidden">
        {children ||
          (raster && (
            <>
              <WorstSpot
                shot={shot}
                wish={wish}
                url={url}
                scaled={made !== null && made.width !== own.width ? made.width / own.width : null}
              />
              <SmallestSpot shot={shot} url={url} width={made?.width ?? null} own={own.width} />
            </>
          ))}
      </div>
    </>
  );
}

/** A caption may tell where the picture is from: whether it does is said before it leaves. */
function CaptionSays({ shot, wish }: Pick<Props, 'shot' | 'wish'>) {
  const look = useLooks((s) => s.looks).find(({ id }) => id === wish.look);
  const document = look ? withLook(shot.document, look) : shot.document;
  if (!captionTellsWhere({ ...shot, document })) return null;
  return (
    <p role="status" className="mb-2 text-[13px] text-soft">
      {wish.facts?.origin
        ? 'Its caption tells where it is from, as the rule of this folder allows.'
        : 'Its caption leaves out where it is from. A folder’s rule can allow it; “As words” in Mark writes it into the caption.'}
    </p>
  );
}

function canShare(blob: Blob, name: string): boolean {
  const files = [new File([blob], name, { type: blob.type })];
  return typeof navigator.canShare === 'function' && navigator.canShare({ files });
}

async function share(blob: Blob, name: string, title: string): Promise<void> {
  try {
    await navigator.share({ files: [new File([blob], name, { type: blob.type })], title });
  } catch {
    // Closed without sharing: nothing happened, and nothing need be said.
  }
}
