import type { TakenFrom } from '@/core/contracts/way';
import { camera } from './camera';
import type { Source } from './contract';
import { desk } from './desk';
import { display } from './display';
import { screen } from './screen';
import { web } from './web';

/** Every place frames come from, in the order in which Take offers them: one folder, one entry. */
export const sources: Record<TakenFrom, Source> = { desk, display, screen, camera, web };
