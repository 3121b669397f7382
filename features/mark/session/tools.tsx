import {
  Contrast,
  Crop,
  Eraser,
  Hand,
  Pipette,
  RotateCw,
  ScanText,
  Ruler,
  type LucideProps,
} from 'lucide-react';
import type { ReactNode } from 'react';
import { groups, type Group } from '@/core/marks/contract';
import { kindOf, markNames, type MarkName } from '@/core/marks/registry';
import { KindIcon } from './KindIcon';
import type { HandTool, Tool } from './tool';

export interface ToolFacts {
  tool: Tool;
  label: string;
  icon: ReactNode;
  /** What to do with it, where it has no settings. */
  hint?: string;
}

const look: LucideProps = { size: 17, strokeWidth: 1.75, 'aria-hidden': true };

export const grabTool: ToolFacts = {
  tool: 'grab',
  label: 'Grab',
  icon: <Hand {...look} />,
  hint: 'Click a mark to select it, drag to move it; drag a frame around several, or Shift-click.',
};

/** The tools of each group that make no mark. */
const handTools: Partial<Record<Group, (ToolFacts & { tool: HandTool })[]>> = {
  Draw: [
    {
      tool: 'eraser',
      label: 'Eraser',
      icon: <Eraser {...look} />,
      hint: 'Click a mark, or rub over several.',
    },
  ],
  Fit: [
    { tool: 'crop', label: 'Crop', icon: <Crop {...look} /> },
    { tool: 'turn', label: 'Turn', icon: <RotateCw {...look} /> },
    {
      tool: 'measure',
      label: 'Measure',
      icon: <Ruler {...look} />,
      hint: 'Drag from one place to another; the numbers stay until the next.',
    },
    {
      tool: 'words',
      label: 'Copy words',
      icon: <ScanText {...look} />,
      hint: 'Drag a frame around words; they are read and copied as text.',
    },
    { tool: 'colour', label: 'Pick colour', icon: <Pipette {...look} /> },
    { tool: 'finish', label: 'Finish', icon: <Contrast {...look} /> },
  ],
};

const factsOfKind = (tool: MarkName): ToolFacts => {
  const { label, icon } = kindOf(tool);
  return { tool, label, icon: <KindIcon path={icon} size={17} /> };
};

/** The tools in groups named by what a person wants to do. */
export const toolGroups: { title: Group; tools: ToolFacts[] }[] = groups.map((title) => ({
  title,
  tools: [
    ...markNames
      .filter((name) => kindOf(name).group === title && kindOf(name).key)
      .map(factsOfKind),
    ...(handTools[title] ?? []),
  ],
}));

export const allTools: ToolFacts[] = [grabTool, ...toolGroups.flatMap((group) => group.tools)];

export const factsOf = (tool: Tool): ToolFacts => allTools.find((t) => t.tool === tool) ?? grabTool;

export const isMarkTool = (tool: Tool): tool is MarkName => markNames.some((name) => name === tool);
