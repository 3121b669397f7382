import { z } from 'zod';
import { limits } from '../values/limits';
import { line } from '../values/text';

export const sourceNames = [
  'desk',
  'display',
  'screen',
  'camera',
  'web',
  'pasted',
  'dropped',
  'opened',
  'sheet',
  'joined',
  'api',
] as const;
export type SourceName = (typeof sourceNames)[number];

export const sourceLabels: Record<SourceName, string> = {
  desk: 'Practice desk',
  display: 'This computer',
  screen: 'Shared screen',
  camera: 'Camera',
  web: 'Web page',
  pasted: 'Pasted',
  dropped: 'Dropped',
  opened: 'Opened',
  sheet: 'Empty sheet',
  joined: 'Joined',
  api: 'Sent by a program',
};

/** Where and when a frame was taken; shown as “Where from”. */
export const provenanceSchema = z.strictObject({
  source: z.enum(sourceNames),
  takenAt: z.iso.datetime({ offset: true }),
  display: line(limits.nameLength).optional(),
  windowTitle: line(limits.titleLength).optional(),
  /** Of a page: where it was read. */
  address: line(limits.pathLength).optional(),
  program: line(limits.nameLength).optional(),
  /** What the taken part of a window is, as its program describes it: button “Save”. */
  part: line(limits.nameLength).optional(),
  fileName: line(limits.nameLength).optional(),
  /** Of a long page: when the last of its pictures was seen, and how many there were. */
  until: z.iso.datetime({ offset: true }).optional(),
  frames: z.int().min(1).optional(),
  /** By which series, with nobody there. */
  series: line(80).optional(),
});
export type Provenance = z.infer<typeof provenanceSchema>;
