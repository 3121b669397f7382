import type { Rail } from '@/core/geometry/rail';
import type { MarkName } from '@/core/marks/registry';
import type { PartName } from '@/core/finish/surround/surround';
import { part } from './part';

/** Tools that make no mark. */
export type HandTool =
  'grab' | 'crop' | 'turn' | 'words' | 'eraser' | 'measure' | 'colour' | 'finish';
export type Tool = HandTool | MarkName;

/** The groups of what is done to the whole picture. */
export const finishings = ['adjust', 'surround', 'look', 'join'] as const;
export type Finishing = (typeof finishings)[number];

/** What is in hand and what it is used on: changes with a key or a click. */
export interface ToolState {
  tool: Tool;
  /** The tool was chosen here, so Enter may make its mark; at first it is only the usual one. */
  chosen: boolean;
  selection: readonly string[];
  /** The text that is typed into; painted by its field meanwhile. */
  editing: string | null;
  /** The handles of a piece cut it instead of sizing it. */
  cutting: boolean;
  /** The straight edge or arc that strokes follow. */
  rail: Rail | null;
  /** The colour picked last. */
  picked: string | null;
  /** Width ÷ height that the crop keeps; null lets it go. */
  cropRatio: number | null;
  /** What of Finish is in hand, and which part of Surround. */
  finishing: Finishing;
  part: PartName;
}

export const toolAtFirst: ToolState = {
  tool: 'arrow',
  chosen: false,
  selection: [],
  editing: null,
  cutting: false,
  rail: null,
  picked: null,
  cropRatio: null,
  finishing: 'adjust',
  part: 'border',
};

export const toolPart = part<ToolState>(Object.keys(toolAtFirst));
export const useTool = toolPart.use;
