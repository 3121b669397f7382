import { Check, FlipHorizontal2, FlipVertical2, RotateCcw, RotateCw, Scan } from 'lucide-react';
import type { Turn } from '@/core/document/viewSchema';
import { squaredSize } from '@/core/geometry/homography';
import { isTurned, upright } from '@/core/document/turn';
import { flipped, quarterMore } from '@/core/document/turnDocument';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Item, Row } from '../../ui/Row';
import type { Folding } from '../../ui/FoldedRow';
import { NumberInput } from '../../ui/NumberInput';
import { Range } from '../../ui/Range';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { endSquaring, setTurn, startSquaring, unturn } from '../fit/turning';

const icon = { size: 18, strokeWidth: 1.75 };

/** Quarter turns, flips, a free angle, four corners: all of it can be changed back. */
export function useTurnItems(): Folding[] {
  const squaring = useLive((s) => s.squaring !== null);
  const turning = useTurning();
  if (!squaring) return turning;
  return [
    {
      key: 'square hint',
      node: <span className="text-soft">Drag the corners onto those of the page.</span>,
    },
    { key: 'square size', node: <SquaredSize /> },
  ];
}

function useTurning(): Folding[] {
  const turn = useDocument((s) => s.history.document.view.turn) ?? upright;
  const { square } = turn;
  const angle = (value: number) =>
    setTurn({ ...turn, angle: Math.round(value * 100) / 100 }, 'Turn by an angle', 'angle');
  const size = (field: 'width' | 'height', label: string): Folding[] =>
    square
      ? [
          {
            key: `turn ${field}`,
            node: (
              <NumberInput
                label={label}
                value={square[field]}
                min={1}
                max={16_000}
                onCommit={(value) =>
                  setTurn(
                    { ...turn, square: { ...square, [field]: Math.round(value) } },
                    'Set the size',
                  )
                }
              />
            ),
          },
        ]
      : [];
  return [
    { key: 'turn quarters', node: <Quarters turn={turn} /> },
    {
      key: 'turn angle',
      node: (
        <Range
          label="Angle"
          value={turn.angle}
          min={-45}
          max={45}
          step={0.5}
          unit="°"
          onChange={angle}
        />
      ),
    },
    {
      key: 'turn degrees',
      node: <NumberInput label="Degrees" value={turn.angle} min={-45} max={45} onCommit={angle} />,
    },
    ...(isTurned(turn)
      ? [
          {
            key: 'turn back',
            node: (
              <Button look="quiet" onClick={unturn}>
                As it was taken
              </Button>
            ),
          },
        ]
      : []),
    {
      key: 'turn corners',
      node: (
        <Button icon={<Scan size={16} strokeWidth={1.75} />} onClick={startSquaring}>
          Pull four corners square
        </Button>
      ),
    },
    ...size('width', 'Width'),
    ...size('height', 'Height'),
    {
      key: 'turn hint',
      node: <span className="text-soft">Or drag along a line that should be level.</span>,
    },
  ];
}

function Quarters({ turn }: { turn: Turn }) {
  return (
    <Row label="Turn and flip" className="flex">
      <Item>
        <IconButton label="Turn left" onClick={() => setTurn(quarterMore(turn, -1), 'Turn left')}>
          <RotateCcw {...icon} />
        </IconButton>
      </Item>
      <Item>
        <IconButton label="Turn right" onClick={() => setTurn(quarterMore(turn, 1), 'Turn right')}>
          <RotateCw {...icon} />
        </IconButton>
      </Item>
      <Item>
        <IconButton
          label="Flip across"
          onClick={() => setTurn(flipped(turn, 'across'), 'Flip across')}
        >
          <FlipVertical2 {...icon} />
        </IconButton>
      </Item>
      <Item>
        <IconButton label="Flip down" onClick={() => setTurn(flipped(turn, 'down'), 'Flip down')}>
          <FlipHorizontal2 {...icon} />
        </IconButton>
      </Item>
    </Row>
  );
}

const cornerNames = ['Top left', 'Top right', 'Bottom right', 'Bottom left'] as const;

function SquaredSize() {
  const quad = useLive((s) => s.squaring);
  const frame = useDocument((s) => s.frame);
  if (!quad) return null;
  const size = squaredSize(quad, { x: frame.width / 2, y: frame.height / 2 });
  return (
    <>
      <span className="sr-only">
        {quad.map(({ x, y }, i) => `${cornerNames[i] ?? ''} ${x}, ${y}`).join('; ')}
      </span>
      <output aria-label="Size" className="font-measure text-[13px]">
        {size.width} × {size.height} px
      </output>
    </>
  );
}

/** The ways out of pulling square: never folded away. */
export function SquareEnd() {
  const squaring = useLive((s) => s.squaring !== null);
  if (!squaring) return null;
  return (
    <>
      <Button hint="Esc" onClick={() => endSquaring(false)}>
        Leave it
      </Button>
      <Button
        hint="Enter"
        icon={<Check size={16} strokeWidth={1.75} />}
        onClick={() => endSquaring(true)}
      >
        Pull square
      </Button>
    </>
  );
}
