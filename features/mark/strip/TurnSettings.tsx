import { Check, FlipHorizontal2, FlipVertical2, RotateCcw, RotateCw, Scan } from 'lucide-react';
import { squaredSize } from '@/core/geometry/homography';
import { isTurned, upright } from '@/core/shot/turn';
import { flipped, quarterMore } from '@/core/shot/turnDocument';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Item, Row } from '../../ui/Row';
import { NumberInput } from '../../ui/NumberInput';
import { Range } from '../../ui/Range';
import { useSession } from '../session';
import { endSquaring, setTurn, startSquaring, unturn } from '../turning';

const icon = { size: 18, strokeWidth: 1.75 };

/** Quarter turns, flips, a free angle, four corners: all of it can be changed back. */
export function TurnSettings() {
  const squaring = useSession((s) => s.squaring !== null);
  return squaring ? <Squaring /> : <Turning />;
}

function Turning() {
  const turn = useSession((s) => s.history.document.view.turn) ?? upright;
  const { square } = turn;
  const angle = (value: number) =>
    setTurn({ ...turn, angle: Math.round(value * 100) / 100 }, 'Turn by an angle', 'angle');
  return (
    <>
      <Row label="Turn and flip" className="flex">
        <Item>
          <IconButton label="Turn left" onClick={() => setTurn(quarterMore(turn, -1), 'Turn left')}>
            <RotateCcw {...icon} />
          </IconButton>
        </Item>
        <Item>
          <IconButton
            label="Turn right"
            onClick={() => setTurn(quarterMore(turn, 1), 'Turn right')}
          >
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
      <Range
        label="Angle"
        value={turn.angle}
        min={-45}
        max={45}
        step={0.5}
        unit="°"
        onChange={angle}
      />
      <NumberInput label="Degrees" value={turn.angle} min={-45} max={45} onCommit={angle} />
      <Button icon={<Scan size={16} strokeWidth={1.75} />} onClick={startSquaring}>
        Pull four corners square
      </Button>
      {square && (
        <>
          <NumberInput
            label="Width"
            value={square.width}
            min={1}
            max={16_000}
            onCommit={(width) =>
              setTurn({ ...turn, square: { ...square, width: Math.round(width) } }, 'Set the size')
            }
          />
          <NumberInput
            label="Height"
            value={square.height}
            min={1}
            max={16_000}
            onCommit={(height) =>
              setTurn(
                { ...turn, square: { ...square, height: Math.round(height) } },
                'Set the size',
              )
            }
          />
        </>
      )}
      {isTurned(turn) && (
        <Button look="quiet" onClick={unturn}>
          As it was taken
        </Button>
      )}
      <span className="text-soft">Or drag along a line that should be level.</span>
    </>
  );
}

const cornerNames = ['Top left', 'Top right', 'Bottom right', 'Bottom left'] as const;

function Squaring() {
  const quad = useSession((s) => s.squaring);
  const frame = useSession((s) => s.frame);
  if (!quad) return null;
  const size = squaredSize(quad, { x: frame.width / 2, y: frame.height / 2 });
  return (
    <>
      <span className="text-soft">Drag the corners onto those of the page.</span>
      <span className="sr-only">
        {quad.map(({ x, y }, i) => `${cornerNames[i] ?? ''} ${x}, ${y}`).join('; ')}
      </span>
      <output aria-label="Size" className="font-measure text-[13px]">
        {size.width} × {size.height} px
      </output>
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
