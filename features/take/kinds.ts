import {
  AppWindow,
  CalendarClock,
  Clapperboard,
  LassoSelect,
  Monitor,
  Repeat,
  ScrollText,
  SquareDashedMousePointer,
  SquareMousePointer,
  Video,
  type LucideIcon,
} from 'lucide-react';
import { kindLabels, type Kind, type StillKind, type Way } from '@/core/contracts/way';
import type { ActionName } from '../keys/actions';

interface Facts {
  name: Kind;
  note: string;
  /** What the saffron button says. */
  take: string;
  icon: LucideIcon;
  action: ActionName;
}

const facts: readonly Facts[] = [
  {
    name: 'full',
    note: 'A display, or all of them',
    take: 'Take the screen',
    icon: Monitor,
    action: 'take.full',
  },
  {
    name: 'window',
    note: 'Point at it and click',
    take: 'Take a window',
    icon: AppWindow,
    action: 'take.window',
  },
  {
    name: 'region',
    note: 'Drag it on the stilled picture',
    take: 'Take a region',
    icon: SquareDashedMousePointer,
    action: 'take.region',
  },
  {
    name: 'shape',
    note: 'Loop, polygon or oval',
    take: 'Take a free shape',
    icon: LassoSelect,
    action: 'take.shape',
  },
  {
    name: 'part',
    note: 'A button, row or panel',
    take: 'Take a part',
    icon: SquareMousePointer,
    action: 'take.part',
  },
  {
    name: 'repeat',
    note: 'The same place as last time',
    take: 'Take it again',
    icon: Repeat,
    action: 'take.repeat',
  },
  {
    name: 'long',
    note: 'Scroll, and it grows',
    take: 'Take a long page',
    icon: ScrollText,
    action: 'take.long',
  },
  {
    name: 'series',
    note: 'By the clock, by itself',
    take: 'Set up a series',
    icon: CalendarClock,
    action: 'take.series',
  },
  {
    name: 'back',
    note: 'The last 10 seconds',
    take: 'Look back',
    icon: Clapperboard,
    action: 'take.back',
  },
  {
    name: 'clip',
    note: 'What moves, recorded',
    take: 'Record',
    icon: Video,
    action: 'take.clip',
  },
];

/** What of a source is shown of a clip, in few words. */
export const recordsLabels: Record<StillKind, string> = {
  ...kindLabels,
  full: 'All of it',
  shape: 'Shape',
  repeat: 'Repeat',
};

/** What is done with what is chosen. */
export const verbOf = ({ kind }: Pick<Way, 'kind'>): string =>
  kind === 'clip' ? 'Record' : 'Take';

export interface KindFacts extends Facts {
  label: string;
}

/** The kinds of take, in the order of their keys. */
export const kinds: readonly KindFacts[] = facts.map((f) => ({ ...f, label: kindLabels[f.name] }));

export const kindFacts = (name: Kind): KindFacts => {
  const found = kinds.find((k) => k.name === name);
  if (!found) throw new Error(`There is no kind ${name}.`);
  return found;
};
