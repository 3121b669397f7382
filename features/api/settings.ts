import type { z } from 'zod';
import {
  settingsAnswerSchema,
  settingsSchema,
  type Settings,
  type SettingsPatch,
} from '@/core/contracts/settings';
import {
  routineSchema,
  routinesSchema,
  type Routine,
  type RoutineInput,
} from '@/core/contracts/way';
import { ask, read, sent } from './ask';

/** What is asked of the server about settings and routines. */
export const settingsApi = {
  settings: (): Promise<z.output<typeof settingsAnswerSchema>> =>
    read(settingsAnswerSchema, '/api/settings'),
  changeSettings: (patch: SettingsPatch): Promise<Settings> =>
    read(settingsSchema, '/api/settings', sent('PATCH', patch)),
  routines: async (): Promise<Routine[]> => (await read(routinesSchema, '/api/routines')).routines,
  addRoutine: (input: RoutineInput): Promise<Routine> =>
    read(routineSchema, '/api/routines', sent('POST', input)),
  changeRoutine: (
    id: string,
    patch: Partial<RoutineInput> & { confirmed?: true },
  ): Promise<Routine> => read(routineSchema, `/api/routines/${id}`, sent('PATCH', patch)),
  removeRoutine: (id: string) => ask(`/api/routines/${id}`, { method: 'DELETE' }),
  orderRoutines: (ids: string[]) => ask('/api/routines', sent('PUT', { ids })),
};
