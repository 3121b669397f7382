import { Computer } from 'lucide-react';
import type { Source } from '../contract';
import { displaySource } from './display';
import { Live } from './Live';

export const display: Source = Object.assign(displaySource, { icon: Computer, Live });
