import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { ShotDocument } from '@/core/document/document';
import { sheetOf } from '@/core/document/view';
import { withFinish } from '@/core/finish/finish';
import { layoutOf } from '@/core/finish/surround/layout';
import { labelOf, partsIn } from '@/core/finish/surround/surround';
import { fitScale } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import { sizeProblem } from '@/core/keep/fitSize';
import { paintSurrounded } from '@/core/paint/surrounded';
import { surroundedOf } from '@/core/paint/whole';
import { bitmap, sheet } from '@/workers/bitmap';
import { messageOf } from '../../api/ask';
import { paintView } from '../../pictures/pictures';
import { chooseTool } from '../actions/chooseTool';
import { chooseFinishing } from '../fit/finishing';
import { useDocument } from '../session/document';
import { leavingDocument } from '../session/leaving';
import { useTool, type Finishing } from '../session/tool';

/** The view as it is painted without what is around it, as large as it is seen. */
interface Seen {
  picture: ImageBitmap;
  /** Its pixels for one of the frame. */
  scale: number;
}

const MARGIN = 20;
/** Room for the words below it. */
const BELOW = 48;

/** The view painted by the worker; null until it is there, a moment later it may be an older one. */
function useSeen(document: ShotDocument, wanted: number): { seen: Seen | null; problem: string } {
  const frame = useDocument((s) => s.frame);
  const { marks, view, pictures, finish } = document;
  const adjust = finish?.adjust;
  const [seen, setSeen] = useState<Seen | null>(null);
  const [problem, setProblem] = useState('');
  // A little more than is needed now serves many sizes.
  const scale = Math.min(1, 2 ** (Math.ceil(Math.log2(wanted) * 2) / 2));
  useEffect(() => {
    let isWanted = true;
    const bare = { ...document, finish: withFinish(finish, { surround: undefined }) };
    paintView(frame, bare, scale).then(
      (picture) => {
        if (isWanted) setSeen({ picture, scale });
        else picture.close();
      },
      (error: unknown) => isWanted && setProblem(messageOf(error)),
    );
    return () => {
      isWanted = false;
    };
    // What is around it does not change the view itself.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [frame, marks, view, pictures, adjust, scale]);
  useEffect(() => () => seen?.picture.close(), [seen]);
  return { seen, problem };
}

/** While marks can be laid beside the picture, it is seen as it is marked. */
const wholeFor: ReadonlySet<Finishing> = new Set(['surround', 'look']);

const useAny = (): boolean =>
  useDocument((s) => partsIn(s.history.document.finish?.surround).length > 0);

/** Whether the shot is seen as it leaves: while Surround or Look is in hand. */
export function useWholeSeen(before: boolean): boolean {
  const inHand = useTool((s) => s.tool === 'finish' && wholeFor.has(s.finishing));
  return useAny() && inHand && !before;
}

/** The shot with all that is around it, or a word about that while something else is in hand. */
export function Surrounded({ size, whole }: { size: Size; whole: boolean }) {
  const inHand = useTool((s) => s.tool === 'finish' && wholeFor.has(s.finishing));
  const any = useAny();
  if (whole && size.width > 0) return <Whole size={size} />;
  return any && !inHand ? <Around /> : null;
}

function Whole({ size }: { size: Size }) {
  const shot = useDocument((s) => s.history.document);
  const title = useDocument((s) => s.title);
  const shaper = useDocument((s) => s.shaper);
  // The name is one of the facts of a caption.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const document = useMemo(() => leavingDocument(true, shot), [shot, title]);
  const surround = document.finish?.surround ?? {};
  const { width, height } = sheetOf(document.view);
  const isShaped = document.view.shape !== undefined;
  const layout = layoutOf(surround, { width, height }, isShaped, shaper);
  const { whole } = layout;
  const room = { width: size.width - 2 * MARGIN, height: size.height - MARGIN - BELOW };
  const scale = fitScale(whole, room, 1);
  const device = scale * window.devicePixelRatio;
  const { seen, problem } = useSeen(document, device);
  const tooLarge = sizeProblem({ scaled: whole, sheet: whole });
  const canvas = useRef<HTMLCanvasElement>(null);
  const [w, h] = [Math.round(whole.width * device), Math.round(whole.height * device)];
  useLayoutEffect(() => {
    const surface = canvas.current?.getContext('2d');
    if (!surface || !seen || tooLarge) return;
    surface.canvas.width = w;
    surface.canvas.height = h;
    surface.imageSmoothingQuality = 'high';
    surface.save();
    surface.scale(device, device);
    const draw = (to: typeof surface) => {
      to.save();
      to.scale(1 / seen.scale, 1 / seen.scale);
      to.imageSmoothingQuality = 'high';
      to.drawImage(seen.picture, 0, 0);
      to.restore();
    };
    const of = { ...surroundedOf(document, layout, surround), draw: draw as never };
    paintSurrounded(surface, of, { shaper, bitmap, sheet }, device);
    surface.restore();
  });
  return (
    <div
      className="absolute inset-0 grid place-items-center bg-desk"
      style={{ paddingTop: MARGIN, paddingBottom: BELOW }}
    >
      {(tooLarge ?? problem) ? (
        <p role="alert" className="max-w-md rounded-[8px] bg-card p-4">
          {tooLarge ?? problem}
        </p>
      ) : (
        <canvas
          ref={canvas}
          role="img"
          data-testid="whole"
          data-painted={seen !== null}
          aria-label={`As it leaves, ${whole.width} × ${whole.height} pixels`}
          style={{ width: w / window.devicePixelRatio, height: h / window.devicePixelRatio }}
        />
      )}
      <p className="absolute bottom-2 left-3 rounded-full bg-card px-3 py-1 font-measure text-[13px] text-soft">
        As it leaves · {whole.width} × {whole.height} px
      </p>
    </div>
  );
}

/** While something else is in hand: what is around the picture, and the way to it. */
function Around() {
  const surround = useDocument((s) => s.history.document.finish?.surround);
  const words = partsIn(surround).map((name) => labelOf(name).toLowerCase());
  return (
    <button
      type="button"
      className="absolute bottom-2 left-3 max-w-[60%] truncate rounded-full border border-edge bg-card px-3 py-0.5 text-[13px] hover:bg-tint"
      onPointerDown={(event) => event.stopPropagation()}
      onClick={() => {
        chooseTool('finish');
        chooseFinishing('surround');
      }}
    >
      {`Leaves with ${words.join(', ')}`}
    </button>
  );
}
