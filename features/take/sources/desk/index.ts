import { Sprout } from 'lucide-react';
import type { Source } from '../contract';
import { deskSource } from './desk';
import { Live } from './Live';

export const desk: Source = Object.assign(deskSource, { icon: Sprout, Live });
