import { Check, X } from 'lucide-react';
import { Button } from '../../ui/Button';
import type { Folding } from '../../ui/FoldedRow';
import { NumberInput } from '../../ui/NumberInput';
import { cropWhole, endCrop, setCropping, setCropRatio, setShape } from '../fit/crop';
import { stopFollowing } from '../fit/following';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { Choice } from './controls';

const shapeLabels = { none: 'Rectangle', oval: 'Oval', polygon: 'Free shape' } as const;

/** What the view shows within the crop; a free shape stays as long as it is not replaced. */
function ShapeChoice() {
  const shape = useDocument((s) => s.history.document.view.shape);
  const current = shape?.kind ?? 'none';
  return (
    <label className="flex items-center gap-2">
      Shape
      <select
        value={current}
        onChange={(event) => {
          if (event.target.value === 'none') setShape(undefined);
          if (event.target.value === 'oval') setShape({ kind: 'oval' });
        }}
        className="h-8 rounded-[6px] border border-edge bg-card px-2"
      >
        {(['none', 'oval', 'polygon'] as const)
          .filter((kind) => kind !== 'polygon' || current === 'polygon')
          .map((kind) => (
            <option key={kind} value={kind}>
              {shapeLabels[kind]}
            </option>
          ))}
      </select>
    </label>
  );
}

const ratios = [
  ['free', 'Free'],
  ['1', '1 : 1'],
  ['1.3333', '4 : 3'],
  ['1.5', '3 : 2'],
  ['1.7778', '16 : 9'],
  ['0.75', '3 : 4'],
  ['0.5625', '9 : 16'],
] as const;
const exact: Record<string, number> = { 1.3333: 4 / 3, 1.7778: 16 / 9 };

function RatioChoice() {
  const ratio = useTool((s) => s.cropRatio);
  const value = ratios.find(([name]) => ratio !== null && Math.abs(Number(name) - ratio) < 0.001);
  return (
    <Choice
      label="Ratio"
      value={value?.[0] ?? 'free'}
      options={ratios}
      onChange={(name) => setCropRatio(name === 'free' ? null : (exact[name] ?? Number(name)))}
    />
  );
}

/** The numbers of the crop and its shape. */
export function useCropItems(): Folding[] {
  const crop = useLive((s) => s.cropping);
  const follows = useDocument((s) => s.history.document.view.follow !== undefined);
  if (!crop) return [];
  return [
    ...(['x', 'y', 'width', 'height'] as const).map((field) => ({
      key: `crop ${field}`,
      node: (
        <NumberInput
          label={{ x: 'Left', y: 'Top', width: 'Width', height: 'Height' }[field]}
          value={crop[field]}
          onCommit={(value) => setCropping({ ...crop, [field]: value })}
        />
      ),
    })),
    { key: 'crop ratio', node: <RatioChoice /> },
    { key: 'crop shape', node: <ShapeChoice /> },
    { key: 'crop whole', node: <Button onClick={cropWhole}>Whole frame</Button> },
    ...(follows
      ? [{ key: 'crop follow', node: <Button onClick={stopFollowing}>Follow no window</Button> }]
      : []),
  ];
}

/** The ways out of cropping: never folded away. */
export function CropEnd() {
  const cropping = useLive((s) => s.cropping !== null);
  if (!cropping) return null;
  return (
    <>
      <Button
        folds
        aria-keyshortcuts="Escape"
        icon={<X size={16} strokeWidth={1.75} />}
        onClick={() => endCrop(false)}
      >
        Leave it
      </Button>
      <Button
        folds
        aria-keyshortcuts="Enter"
        icon={<Check size={16} strokeWidth={1.75} />}
        onClick={() => endCrop(true)}
      >
        Crop to this
      </Button>
    </>
  );
}
