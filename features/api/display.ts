import {
  describedAnswerSchema,
  displayAnswerSchema,
  screenStillSchema,
  type DisplayAnswer,
  type ScreenStill,
  type WheelTurn,
} from '@/core/contracts/display';
import type { DescribedPart } from '@/core/screen/parts/described';
import { ask, read, sent } from './ask';

/** What is asked of the server about this computer’s screen. */
export const displayApi = {
  display: (): Promise<DisplayAnswer> => read(displayAnswerSchema, '/api/display'),
  stillDisplay: (): Promise<ScreenStill> =>
    read(screenStillSchema, '/api/display/stills', { method: 'POST' }),
  heldStill: (id: string): Promise<ScreenStill> =>
    read(screenStillSchema, `/api/display/stills/${id}`),
  stillPixels: async (id: string, window?: number, alone = false): Promise<ArrayBuffer> => {
    const query = window === undefined ? '' : `?window=${window}${alone ? '&alone=1' : ''}`;
    return (await ask(`/api/display/stills/${id}/pixels${query}`)).arrayBuffer();
  },
  stillParts: async (id: string): Promise<DescribedPart[]> =>
    (await read(describedAnswerSchema, `/api/display/stills/${id}/parts`)).parts,
  turnWheel: (turn: WheelTurn) => ask('/api/display/wheel', sent('POST', turn)),
  dropStill: (id: string) => ask(`/api/display/stills/${id}`, { method: 'DELETE' }),
  copyOnDisplay: (id: string) => ask('/api/display/clipboard', sent('POST', { shot: id })),
};
