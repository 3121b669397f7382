import {
  describedAnswerSchema,
  displayAnswerSchema,
  screenStillSchema,
  type DisplayAnswer,
  type ScreenStill,
  type WheelTurn,
} from '@/core/contracts/display';
import {
  heldAnswerSchema,
  heldMomentsSchema,
  type HeldAnswer,
  type HeldMoments,
  type HeldPatch,
} from '@/core/contracts/held';
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
  held: (): Promise<HeldAnswer> => read(heldAnswerSchema, '/api/display/held'),
  hold: (patch: HeldPatch): Promise<HeldAnswer> =>
    read(heldAnswerSchema, '/api/display/held', sent('PATCH', patch)),
  heldMoments: (): Promise<HeldMoments> => read(heldMomentsSchema, '/api/display/held/moments'),
  heldPicture: async (moment: number, width: number): Promise<Blob> =>
    (await ask(`/api/display/held/${moment}/picture?width=${width}`)).blob(),
  stillOfMoment: (moment: number): Promise<ScreenStill> =>
    read(screenStillSchema, `/api/display/held/${moment}/stills`, { method: 'POST' }),
  turnWheel: (turn: WheelTurn) => ask('/api/display/wheel', sent('POST', turn)),
  dropStill: (id: string) => ask(`/api/display/stills/${id}`, { method: 'DELETE' }),
  copyOnDisplay: (id: string) => ask('/api/display/clipboard', sent('POST', { shot: id })),
};
