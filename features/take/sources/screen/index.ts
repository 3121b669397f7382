import { MonitorUp } from 'lucide-react';
import type { Source } from '../contract';
import { screenSource } from './screen';
import { Live } from './Live';

export const screen: Source = Object.assign(screenSource, { icon: MonitorUp, Live });
