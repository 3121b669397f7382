import type { FactsRule } from '../contracts/format';
import { sourceLabels, type Provenance } from '../contracts/provenance';

/** What a file says about itself; what is empty is left out. */
export interface Facts {
  title: string;
  /** What is to be seen; also the text for those who cannot see it. */
  description: string;
  /** Where the frame came from: the source, and where the rule allows it window and address. */
  origin: string;
  /** RFC 3339. */
  takenAt: string;
  software: string;
  /** Dots per inch. */
  density: number;
}

export const SOFTWARE = 'Rezzik';
/** What screens are reckoned at. */
export const SCREEN_DENSITY = 96;

/**
 * The facts of a shot that a rule lets out: its words (title, description, time and software), and
 * where it comes from (source, window, address). What the rule does not let out is empty.
 */
export function factsOf(
  shot: { title: string; description?: string | undefined; provenance: Provenance },
  rule: FactsRule,
  density = SCREEN_DENSITY,
): Facts {
  const { source, windowTitle, address, takenAt } = shot.provenance;
  return {
    title: rule.words ? shot.title : '',
    description: (rule.words && shot.description) || '',
    origin: rule.origin
      ? [sourceLabels[source], windowTitle, address].filter(Boolean).join(' · ')
      : '',
    takenAt: rule.words ? takenAt : '',
    software: rule.words ? SOFTWARE : '',
    density,
  };
}
