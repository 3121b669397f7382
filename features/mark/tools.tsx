import {
  ArrowUpRight,
  Circle,
  CircleDashed,
  Crop,
  Droplet,
  Eraser,
  Grid2x2,
  Hand,
  Hash,
  Highlighter,
  MessageSquare,
  Minus,
  PaintRoller,
  Pencil,
  Pentagon,
  Pipette,
  RectangleHorizontal,
  RotateCw,
  ScanText,
  Ruler,
  Square,
  Stamp,
  Type,
  ZoomIn,
  type LucideIcon,
} from 'lucide-react';
import { markNames, type MarkName } from '@/core/marks/registry';
import type { Tool } from './session';

export interface ToolFacts {
  tool: Exclude<Tool, 'piece'>;
  label: string;
  icon: LucideIcon;
  /** What to do with it, where it has no settings. */
  hint?: string;
}

export const grabTool: ToolFacts = {
  tool: 'grab',
  label: 'Grab',
  icon: Hand,
  hint: 'Click a mark to select it, drag to move it; drag a frame around several, or Shift-click.',
};

/** The tools in groups named by what a person wants to do. */
export const toolGroups: { title: string; tools: ToolFacts[] }[] = [
  {
    title: 'Point',
    tools: [
      { tool: 'arrow', label: 'Arrow', icon: ArrowUpRight },
      { tool: 'line', label: 'Line', icon: Minus },
      { tool: 'number', label: 'Number', icon: Hash },
    ],
  },
  {
    title: 'Enclose',
    tools: [
      { tool: 'box', label: 'Box', icon: Square },
      { tool: 'oval', label: 'Oval', icon: Circle },
      { tool: 'polygon', label: 'Polygon', icon: Pentagon },
      { tool: 'dim', label: 'Dim around', icon: CircleDashed },
      { tool: 'closeUp', label: 'Close-up', icon: ZoomIn },
    ],
  },
  {
    title: 'Draw',
    tools: [
      { tool: 'pen', label: 'Pen', icon: Pencil },
      { tool: 'highlighter', label: 'Highlighter', icon: Highlighter },
      {
        tool: 'eraser',
        label: 'Eraser',
        icon: Eraser,
        hint: 'Click a mark, or rub over several.',
      },
    ],
  },
  {
    title: 'Say',
    tools: [
      { tool: 'text', label: 'Text', icon: Type },
      { tool: 'callout', label: 'Callout', icon: MessageSquare },
      { tool: 'stamp', label: 'Stamp', icon: Stamp },
    ],
  },
  {
    title: 'Hide',
    tools: [
      { tool: 'blur', label: 'Blur', icon: Droplet },
      { tool: 'blocks', label: 'Blocks', icon: Grid2x2 },
      { tool: 'cover', label: 'Cover', icon: RectangleHorizontal },
      { tool: 'paintOut', label: 'Paint out', icon: PaintRoller },
    ],
  },
  {
    title: 'Fit',
    tools: [
      { tool: 'crop', label: 'Crop', icon: Crop },
      { tool: 'turn', label: 'Turn', icon: RotateCw },
      {
        tool: 'measure',
        label: 'Measure',
        icon: Ruler,
        hint: 'Drag from one place to another; the numbers stay until the next.',
      },
      {
        tool: 'words',
        label: 'Copy words',
        icon: ScanText,
        hint: 'Drag a frame around words; they are read and copied as text.',
      },
      { tool: 'colour', label: 'Pick colour', icon: Pipette },
    ],
  },
];

export const allTools: ToolFacts[] = [grabTool, ...toolGroups.flatMap((group) => group.tools)];

export const factsOf = (tool: Tool): ToolFacts => allTools.find((t) => t.tool === tool) ?? grabTool;

export const isMarkTool = (tool: Tool): tool is MarkName => markNames.some((name) => name === tool);
