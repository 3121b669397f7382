import type { MarkName } from '@/core/marks/registry';

/** The tool that was in hand before Pick colour; it gets the colour. */
let before: MarkName | null = null;
export const rememberTool = (tool: MarkName): void => {
  before = tool;
};

/** The tool that a picked colour is given to; none when no tool was in hand before. */
export const colourGoesTo = (): MarkName | null => before;
