import { create } from 'zustand';
import type { TakenFrom } from '@/core/contracts/way';

/** How a recording stands. */
export interface RecordingState {
  id: string;
  source: TakenFrom;
  title: string;
  width: number;
  height: number;
  /** Recorded before the last pause, ms. */
  before: number;
  /** Since when it goes on, ms of the clock; null while it pauses. */
  since: number | null;
  /** On the disk. */
  bytes: number;
  /** There is room for so many more; null where that is not known. */
  room: number | null;
  /** The server does not answer; what comes is held here. */
  away: boolean;
  /** Null where it is recorded without sound; else whether any is heard. */
  sound: 'heard' | 'silent' | null;
  /** It has ended, and what there is is made a clip. */
  ending: boolean;
}

export const useRecording = create<{ now: RecordingState | null; begins: boolean }>(() => ({
  now: null,
  begins: false,
}));

export const recordedMs = ({ before, since }: RecordingState, now = Date.now()): number =>
  before + (since === null ? 0 : now - since);
