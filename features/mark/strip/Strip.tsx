import { Fragment } from 'react';
import { kindOf, type MarkName } from '@/core/marks/registry';
import { shownMarks, useSession } from '../session';
import { useStyles } from '../styles';
import { factsOf, isMarkTool } from '../tools';
import { CropSettings } from './CropSettings';
import { ColourSettings, EraserSettings, MeasureSettings } from './HandToolSettings';
import { settings } from './settings';

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
      {tool === 'crop' && <CropSettings />}
      {tool === 'eraser' && <EraserSettings />}
      {tool === 'measure' && <MeasureSettings />}
      {tool === 'colour' && <ColourSettings />}
      {name &&
        style &&
        kindOf(name).settings.map((field) => (
          <Fragment key={field}>{settings[field](style)}</Fragment>
        ))}
      {!name && tool !== 'crop' && <span className="text-soft">{factsOf(tool).hint}</span>}
    </div>
  );
}
