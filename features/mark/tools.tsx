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
  tool: Exclude<Tool, 'piece'>;
  label: string;
  icon: LucideIcon;
}

export const grabTool: ToolFacts = { tool: 'grab', label: 'Grab', icon: Hand };

/** The tools in groups named by what a person wants to do. */
export const toolGroups: { title: string; tools: ToolFacts[] }[] = [
  {
    title: 'Point',
    tools: [
      { tool: 'arrow', label: 'Arrow', icon: ArrowUpRight },
      { tool: 'line', label: 'Line', icon: Minus },
    ],
  },
  {
    title: 'Enclose',
    tools: [
      { tool: 'box', label: 'Box', icon: Square },
      { tool: 'oval', label: 'Oval', icon: Circle },
    ],
  },
  {
    title: 'Draw',
    tools: [
      { tool: 'pen', label: 'Pen', icon: Pencil },
      { tool: 'highlighter', label: 'Highlighter', icon: Highlighter },
    ],
  },
  { title: 'Say', tools: [{ tool: 'text', label: 'Text', icon: Type }] },
  { title: 'Fit', tools: [{ tool: 'crop', label: 'Crop', icon: Crop }] },
];

export const allTools: ToolFacts[] = [grabTool, ...toolGroups.flatMap((group) => group.tools)];

export const factsOf = (tool: Tool): ToolFacts => allTools.find((t) => t.tool === tool) ?? grabTool;
