import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalDistributeCenter,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalDistributeCenter,
} from 'lucide-react';
import { IconButton } from '../../ui/IconButton';
import { Item, Row } from '../../ui/Row';
import { NumberInput } from '../../ui/NumberInput';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { shownMarks } from '../session/session';
import { alignSelected, distributeSelected } from '../actions/arrange';
import { groupOf, setGroupNumber, turnGroup } from '../actions/group';

/** What can be done with several selected marks at once. */
export function SelectedMarks() {
  const count = useTool((s) => s.selection.length);
  if (count < 2) return null;
  return (
    <div className="mb-2">
      <Row label="Arrange" className="flex flex-wrap">
        {arrangements.map(({ label, icon: Icon, act }) => (
          <Item key={label}>
            <IconButton label={label} onClick={act}>
              <Icon size={16} strokeWidth={1.75} />
            </IconButton>
          </Item>
        ))}
      </Row>
      <GroupNumbers />
    </div>
  );
}

/** The selected marks as one: where they are, how large, and turned by how much. */
function GroupNumbers() {
  const history = useDocument((s) => s.history);
  const live = useLive((s) => s.live);
  const selection = useTool((s) => s.selection);
  const ids = new Set(selection);
  const { box } = groupOf(shownMarks({ history, live }).filter((m) => ids.has(m.id)));
  return (
    <div className="mt-1 grid w-full grid-cols-2 gap-1.5">
      {(['x', 'y', 'width', 'height'] as const).map((field) => (
        <NumberInput
          key={field}
          label={{ x: 'Left', y: 'Top', width: 'Width', height: 'Height' }[field]}
          value={box[field]}
          onCommit={(value) => setGroupNumber(field, value)}
        />
      ))}
      <NumberInput label="Turn by" value={0} onCommit={turnGroup} />
    </div>
  );
}

const arrangements = [
  { label: 'Align left', icon: AlignStartVertical, act: () => alignSelected('left') },
  { label: 'Align centres', icon: AlignCenterVertical, act: () => alignSelected('centre') },
  { label: 'Align right', icon: AlignEndVertical, act: () => alignSelected('right') },
  { label: 'Align top', icon: AlignStartHorizontal, act: () => alignSelected('top') },
  { label: 'Align middles', icon: AlignCenterHorizontal, act: () => alignSelected('middle') },
  { label: 'Align bottom', icon: AlignEndHorizontal, act: () => alignSelected('bottom') },
  {
    label: 'Distribute across',
    icon: AlignHorizontalDistributeCenter,
    act: () => distributeSelected('x'),
  },
  {
    label: 'Distribute down',
    icon: AlignVerticalDistributeCenter,
    act: () => distributeSelected('y'),
  },
];
