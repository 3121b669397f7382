import { Camera } from 'lucide-react';
import type { Source } from '../contract';
import { cameraSource } from './camera';
import { Live } from './Live';

export const camera: Source = Object.assign(cameraSource, { icon: Camera, Live });
