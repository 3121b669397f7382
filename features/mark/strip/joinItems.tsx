import type { PieceMark } from '@/core/marks/piece/schema';
import { navigate } from '../../thread/navigate';
import { Button } from '../../ui/Button';
import type { Folding } from '../../ui/FoldedRow';
import { NumberInput } from '../../ui/NumberInput';
import { widenPart } from '../actions/bringPart';
import { noRoom, setRoom } from '../fit/room';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { update } from '../session/session';
import { SecondColour } from './Colours';
import { Press } from './controls';

const sides = [
  ['top', 'Above'],
  ['bottom', 'Below'],
  ['left', 'Left'],
  ['right', 'Right'],
] as const;

/** Another place of the frame beside the view, and room for notes. */
export function useJoinItems(): Folding[] {
  const room = useDocument((s) => s.history.document.view.room) ?? noRoom;
  const isShaped = useDocument((s) => s.history.document.view.shape !== undefined);
  const bringing = useLive((s) => s.bringing !== null);
  const any = sides.some(([side]) => room[side] > 0);
  const bring: Folding = {
    key: 'bring',
    node: (
      <Press
        label="Bring a part here"
        on={bringing}
        onChange={(on) => update({ bringing: on ? { part: null } : null })}
      />
    ),
  };
  if (isShaped) return [bring];
  return [
    bring,
    { key: 'room', node: <span className="text-soft">Room, px</span> },
    ...sides.map(([side, label]) => ({
      key: `room ${side}`,
      node: (
        <NumberInput
          label={label}
          value={room[side]}
          min={0}
          max={8_000}
          onCommit={(value) => setRoom({ [side]: Math.round(value) })}
        />
      ),
    })),
    ...(any
      ? [
          {
            key: 'room colour',
            node: (
              <SecondColour
                label="Colour"
                value={room.colour}
                none="Transparent"
                onNone={() => setRoom({ colour: null })}
                onChange={(colour) => setRoom({ colour })}
              />
            ),
          },
          {
            key: 'no room',
            node: (
              <Button look="quiet" onClick={() => setRoom({ ...noRoom, colour: room.colour })}>
                No room
              </Button>
            ),
          },
        ]
      : []),
  ];
}

const fields = [
  ['x', 'X'],
  ['y', 'Y'],
  ['width', 'Width'],
  ['height', 'Height'],
] as const;

/** Which place of the frame a brought part shows. */
export const partItems = (mark: PieceMark): Folding[] => [...openItem(mark), ...fromItems(mark)];

/** A piece that shows another shot leads to it. */
const openItem = ({ shot }: PieceMark): Folding[] =>
  shot
    ? [
        {
          key: 'open shot',
          node: <Button onClick={() => navigate(`/shots/${shot}`)}>Open its shot</Button>,
        },
      ]
    : [];

const fromItems = (mark: PieceMark): Folding[] =>
  mark.from
    ? fields.map(([field, label]) => ({
        key: `part ${field}`,
        node: (
          <NumberInput
            label={`Part ${label.toLowerCase()}`}
            value={mark.from?.[field] ?? 0}
            min={field === 'width' || field === 'height' ? 1 : 0}
            onCommit={(value) =>
              mark.from && void widenPart(mark, { ...mark.from, [field]: Math.round(value) })
            }
          />
        ),
      }))
    : [];
