import type { z } from 'zod';
import { roomSchema, unkeptSchema, type Room, type Unkept } from '@/core/contracts/room';
import { read } from './ask';

const leftSchema = roomSchema.pick({ free: true, low: true, lately: true });
export type RoomLeft = z.infer<typeof leftSchema>;

/** What is asked of the server about the room that is used. */
export const roomApi = {
  room: (): Promise<Room> => read(roomSchema, '/api/room'),
  roomLeft: (): Promise<RoomLeft> => read(leftSchema, '/api/room?left'),
  unkept: (days: number, signal: AbortSignal): Promise<Unkept> =>
    read(unkeptSchema, `/api/room/unkept?days=${days}`, { signal }),
};
