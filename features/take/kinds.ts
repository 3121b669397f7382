import {
  AppWindow,
  LassoSelect,
  Monitor,
  Repeat,
  SquareDashedMousePointer,
  SquareMousePointer,
  type LucideIcon,
} from 'lucide-react';
import type { Kind } from '@/core/contracts/way';
import type { ActionName } from '../keys/actions';

export interface KindFacts {
  name: Kind;
  label: string;
  note: string;
  /** What the saffron button says. */
  take: string;
  icon: LucideIcon;
  action: ActionName;
}

/** The kinds of take, in the order of their keys. */
export const kinds: readonly KindFacts[] = [
  {
    name: 'full',
    label: 'Full screen',
    note: 'A display, or all of them',
    take: 'Take the screen',
    icon: Monitor,
    action: 'take.full',
  },
  {
    name: 'window',
    label: 'Window',
    note: 'Point at it and click',
    take: 'Take a window',
    icon: AppWindow,
    action: 'take.window',
  },
  {
    name: 'region',
    label: 'Region',
    note: 'Drag it on the stilled picture',
    take: 'Take a region',
    icon: SquareDashedMousePointer,
    action: 'take.region',
  },
  {
    name: 'shape',
    label: 'Free shape',
    note: 'Loop, polygon or oval',
    take: 'Take a free shape',
    icon: LassoSelect,
    action: 'take.shape',
  },
  {
    name: 'part',
    label: 'Part',
    note: 'A button, row or panel',
    take: 'Take a part',
    icon: SquareMousePointer,
    action: 'take.part',
  },
  {
    name: 'repeat',
    label: 'Repeat region',
    note: 'The same place as last time',
    take: 'Take it again',
    icon: Repeat,
    action: 'take.repeat',
  },
];

export const kindFacts = (name: Kind): KindFacts => {
  const facts = kinds.find((k) => k.name === name);
  if (!facts) throw new Error(`There is no kind ${name}.`);
  return facts;
};
