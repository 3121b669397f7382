import { Globe } from 'lucide-react';
import type { Source } from '../contract';
import { Live } from './Live';
import { webSource } from './web';

export const web: Source = Object.assign(webSource, { icon: Globe, Live });
