import {
  ArrowUpRight,
  Circle,
  Crop,
  Hand,
  Highlighter,
  Minus,
  Pencil,
  Square,
  Type,
  type LucideIcon,
} from 'lucide-react';
import type { Tool } from './session';

export interface ToolFacts {
  tool: Tool;
  label: string;
  hint: string;
  icon: LucideIcon;
}

export const grabTool: ToolFacts = { tool: 'grab', label: 'Grab', hint: 'G', icon: Hand };

/** The tools in groups named by what a person wants to do. */
export const toolGroups: { title: string; tools: ToolFacts[] }[] = [
  {
    title: 'Point',
    tools: [
      { tool: 'arrow', label: 'Arrow', hint: 'A', icon: ArrowUpRight },
      { tool: 'line', label: 'Line', hint: 'L', icon: Minus },
    ],
  },
  {
    title: 'Enclose',
    tools: [
      { tool: 'box', label: 'Box', hint: 'B', icon: Square },
      { tool: 'oval', label: 'Oval', hint: 'O', icon: Circle },
    ],
  },
  {
    title: 'Draw',
    tools: [
      { tool: 'pen', label: 'Pen', hint: 'P', icon: Pencil },
      { tool: 'highlighter', label: 'Highlighter', hint: 'H', icon: Highlighter },
    ],
  },
  { title: 'Say', tools: [{ tool: 'text', label: 'Text', hint: 'T', icon: Type }] },
  { title: 'Fit', tools: [{ tool: 'crop', label: 'Crop', hint: 'K', icon: Crop }] },
];

export const allTools: ToolFacts[] = [grabTool, ...toolGroups.flatMap((group) => group.tools)];

export const factsOf = (tool: Tool): ToolFacts => allTools.find((t) => t.tool === tool) ?? grabTool;
