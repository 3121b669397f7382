import { Fragment, useMemo } from 'react';
import { kindOf, type Mark, type MarkName } from '@/core/marks/registry';
import { canStandOut } from '@/core/shot/standsOut';
import { setStyle } from '../actions';
import { Button } from '../../ui/Button';
import { nextAfterOther } from '../lastNumber';
import { shownMarks, update, useSession } from '../session';
import { contrastOf } from '../standsOut';
import { useStyles } from '../styles';
import { factsOf, isMarkTool } from '../tools';
import { CropSettings } from './CropSettings';
import { ColourSettings, EraserSettings, MeasureSettings, WordsSettings } from './HandToolSettings';
import { Press } from './controls';
import { RailSettings } from './RailSettings';
import { settings } from './settings';
import { TurnSettings } from './TurnSettings';

const isHide = (name: MarkName): boolean => kindOf(name).group === 'Hide';

const isPicture = (mark: Mark | undefined): boolean =>
  mark?.kind === 'piece' && mark.picture !== undefined;

/** Whether the handles of a picture size it or cut it. */
function CutSwitch() {
  const on = useSession((s) => s.cutting);
  return <Press label="Crop this piece" on={on} onChange={(cutting) => update({ cutting })} />;
}

/** The switch for the edge, and how well the mark can be seen without it. */
function StandsOut({ on, mark }: { on: boolean; mark: Mark | undefined }) {
  const ratio = useMemo(() => (mark ? contrastOf(mark) : null), [mark]);
  return (
    <span className="flex items-center gap-2">
      <Press label="Stands out" on={on} onChange={(standsOut) => setStyle({ standsOut })} />
      {ratio !== null && (
        <span
          className="font-measure text-[13px] text-soft"
          title="Contrast with what is below; an edge is added when it is too low"
        >
          {`${ratio.toFixed(1)}:1`}
        </span>
      )}
    </span>
  );
}

/** Numbers that go on where those of the shot before ended. */
function GoOn() {
  const id = useSession((s) => s.id);
  const next = nextAfterOther(id);
  if (next === null) return null;
  return <Button onClick={() => setStyle({ first: next })}>{`Go on from ${next}`}</Button>;
}

/** Above the picture: the settings of the tool in hand, or of the selected mark. */
export function Strip() {
  const tool = useSession((s) => s.tool);
  const chosen = useSession((s) => s.selection);
  const history = useSession((s) => s.history);
  const live = useSession((s) => s.live);
  const styles = useStyles();
  const first = shownMarks({ history, live }).find((mark) => mark.id === chosen[0]);
  const name: MarkName | null = first?.kind ?? (isMarkTool(tool) ? tool : null);
  const style = name && { ...styles[name], ...(first && kindOf(first).styleOf(first)) };
  const label = first ? kindOf(first).label : factsOf(tool).label;
  return (
    <div
      role="toolbar"
      aria-label={`Settings of ${label}`}
      className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-card px-3.5 py-1.5"
    >
      <span className="font-name">{label}</span>
      <RailSettings />
      {tool === 'crop' && <CropSettings />}
      {tool === 'turn' && <TurnSettings />}
      {tool === 'eraser' && <EraserSettings />}
      {tool === 'measure' && <MeasureSettings />}
      {tool === 'words' && <WordsSettings />}
      {tool === 'colour' && <ColourSettings />}
      {name &&
        style &&
        !isPicture(first) &&
        kindOf(name).settings.map((field) => (
          <Fragment key={field}>{settings[field](style)}</Fragment>
        ))}
      {isPicture(first) && <CutSwitch />}
      {name === 'number' && <GoOn />}
      {name && style && (first ? canStandOut(first) : !isHide(name)) && (
        <StandsOut on={first ? !first.plain : style.standsOut} mark={first} />
      )}
      {!name && tool !== 'crop' && tool !== 'turn' && (
        <span className="text-soft">{factsOf(tool).hint}</span>
      )}
    </div>
  );
}
