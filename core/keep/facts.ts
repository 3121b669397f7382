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

/** The facts of a shot that a rule lets out. */
export function factsOf(
  shot: { title: string; description?: string | undefined; provenance: Provenance },
  rule: FactsRule,
  density = SCREEN_DENSITY,
): Facts {
  const { source, display, windowTitle, address, takenAt } = shot.provenance;
  const more = rule.origin ? [windowTitle, address, display] : [];
  const origin = [sourceLabels[source], ...more].filter(Boolean).join(' · ');
  if (!rule.words) {
    const none = { title: '', description: '', origin: rule.origin ? origin : '', takenAt: '' };
    return { ...none, software: SOFTWARE, density };
  }
  return {
    title: shot.title,
    description: shot.description ?? '',
    origin: rule.origin ? origin : '',
    takenAt,
    software: SOFTWARE,
    density,
  };
}
