import { formatFixed } from '../../ui/format';
import {
  hides,
  kindOf,
  opacityOf,
  picturesOf,
  type Mark,
  type MarkName,
} from '@/core/marks/registry';
import { canStandOut } from '@/core/paint/standsOut';
import { setStyle } from '../actions/restyle';
import { Button } from '../../ui/Button';
import { FoldedRow, type Folding } from '../../ui/FoldedRow';
import { nextAfterOther } from '../session/lastNumber';
import { useDocument } from '../session/document';
import { useLive } from '../session/live';
import { useTool } from '../session/tool';
import { shownMarks, update } from '../session/session';
import { useContrast } from '../recognise/standsOut';
import { useStyles } from '../session/styles';
import { factsOf, isMarkTool } from '../session/tools';
import { partItems } from './joinItems';
import { CropEnd, useCropItems } from './cropItems';
import { Press } from './controls';
import { useFinishItems } from './finishItems';
import { useColourItems, useEraserItems, useMeasureItems, useWordsItems } from './handToolItems';
import { useRailItems } from './railItems';
import { settings } from './settings';
import { SquareEnd, useTurnItems } from './turnItems';

const isPicture = (mark: Mark | undefined): boolean =>
  mark !== undefined && picturesOf(mark).length > 0;

const partsOf = (mark: Mark | undefined): Folding[] =>
  mark?.kind === 'piece' ? partItems(mark) : [];

/** Whether the handles of a picture size it or cut it. */
function CutSwitch() {
  const on = useTool((s) => s.cutting);
  return <Press label="Crop this piece" on={on} onChange={(cutting) => update({ cutting })} />;
}

/** The switch for the edge, and how well the mark can be seen without it. */
function StandsOut({ on, mark }: { on: boolean; mark: Mark | undefined }) {
  const ratio = useContrast(mark);
  return (
    <span className="flex items-center gap-2">
      <Press label="Stands out" on={on} onChange={(standsOut) => setStyle({ standsOut })} />
      {ratio !== null && (
        <span
          className="font-measure text-[13px] text-soft"
          title="Contrast with what is below; an edge is added when it is too low"
        >
          {`${formatFixed(ratio, 1)}:1`}
        </span>
      )}
    </span>
  );
}

/** Numbers that go on where those of the shot before ended. */
function GoOn() {
  const id = useDocument((s) => s.id);
  const next = nextAfterOther(id);
  if (next === null) return null;
  return <Button onClick={() => setStyle({ first: next })}>{`Go on from ${next}`}</Button>;
}

/** The settings of a mark, or of the tool that makes it. */
function useMarkItems(first: Mark | undefined, name: MarkName | null): Folding[] {
  const styles = useStyles();
  if (!name) return [];
  const style = {
    ...styles[name],
    ...(first && { ...kindOf(first).styleOf(first), opacity: opacityOf(first) }),
  };
  const own = isPicture(first)
    ? [...partsOf(first), { key: 'cut', node: <CutSwitch /> }]
    : kindOf(name).settings.map((field) => ({ key: field, node: settings[field](style) }));
  const stands = first ? canStandOut(first) : !hides(name);
  return [
    ...own,
    ...(kindOf(name).fades ? [{ key: 'opacity', node: settings.opacity(style) }] : []),
    ...(name === 'number' ? [{ key: 'go on', node: <GoOn /> }] : []),
    ...(stands
      ? [
          {
            key: 'stands out',
            node: (
              <StandsOut on={first ? first.standsOut !== false : style.standsOut} mark={first} />
            ),
          },
        ]
      : []),
  ];
}

/** Above the picture: the settings of the tool in hand, or of the selected mark; always one line. */
export function Strip() {
  const tool = useTool((s) => s.tool);
  const chosen = useTool((s) => s.selection);
  const history = useDocument((s) => s.history);
  const live = useLive((s) => s.live);
  const first = shownMarks({ history, live }).find((mark) => mark.id === chosen[0]);
  const name: MarkName | null = first?.kind ?? (isMarkTool(tool) ? tool : null);
  const label = first ? kindOf(first).label : factsOf(tool).label;
  const markItems = useMarkItems(first, name);
  const rail = useRailItems();
  const tools = {
    crop: useCropItems(),
    turn: useTurnItems(),
    finish: useFinishItems(),
    eraser: useEraserItems(),
    measure: useMeasureItems(),
    words: useWordsItems(),
    colour: useColourItems(),
  };
  const hand = Object.entries(tools).flatMap(([of, items]) => (of === tool ? items : []));
  const hint = !name && tool !== 'crop' && tool !== 'turn' && factsOf(tool).hint;
  return (
    <div
      role="toolbar"
      aria-label={`Settings of ${label}`}
      className="flex h-[46px] shrink-0 items-center gap-x-4 border-b border-line bg-card px-3.5"
    >
      <span className="min-w-0 shrink truncate font-name">{label}</span>
      <FoldedRow
        label="More settings"
        items={[
          ...rail,
          ...hand,
          ...markItems,
          ...(hint ? [{ key: 'hint', node: <span className="text-soft">{hint}</span> }] : []),
        ]}
      />
      {tool === 'crop' && <CropEnd />}
      {tool === 'turn' && <SquareEnd />}
    </div>
  );
}
