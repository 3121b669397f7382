import { z } from 'zod';
import { limits } from '../values/limits';
import { thenStepSchema } from '../places/registry';
import { storedSchema, title } from './shot';
import { line } from '../values/text';

/** Whole pixels of the virtual screen; windows may hang over its edges. */
const place = z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() });

export const monitorSchema = place.extend({ name: z.string(), primary: z.boolean() });
export type Monitor = z.infer<typeof monitorSchema>;

export const windowTypes = ['window', 'menu', 'tooltip', 'panel'] as const;

export const screenWindowSchema = z.object({
  id: z.int(),
  title: z.string(),
  program: z.string(),
  type: z.enum(windowTypes),
  /** The client area. */
  bounds: place,
  /** With what the window manager draws around it. */
  frameBounds: place.optional(),
  /** The monitor that shows most of it; null when none does. */
  monitor: z.string().nullable(),
  minimised: z.boolean(),
  /** The desktop it is on, where that is another than the one that is shown. */
  desktop: z.string().optional(),
});
export type ScreenWindow = z.infer<typeof screenWindowSchema>;

/** True when a window is on the screen, perhaps under others. */
export const isShown = ({ minimised, desktop }: ScreenWindow): boolean =>
  !minimised && desktop === undefined;

/** The pointer’s picture: RGBA, row-major, not premultiplied, as base64. */
export const pointerImageSchema = z.object({
  x: z.int(),
  y: z.int(),
  name: z.string(),
  hotSpot: z.object({ x: z.int(), y: z.int() }),
  width: z.int(),
  height: z.int(),
  rgba: z.string(),
});
export type PointerPicture = z.infer<typeof pointerImageSchema>;

export const displayAnswerSchema = z.object({
  available: z.boolean(),
  /** Why not, or what to know, in plain words. */
  reason: z.string().optional(),
  width: z.int().optional(),
  height: z.int().optional(),
  monitors: z.array(monitorSchema),
  /** From back to front. */
  windows: z.array(screenWindowSchema),
  /** The desktop tells nobody which windows there are. */
  noWindowList: z.literal(true).optional(),
  /** The window that has the keyboard. */
  focused: z.int().nullable().optional(),
  pointer: z.object({ x: z.int(), y: z.int() }).nullable(),
});
export type DisplayAnswer = z.infer<typeof displayAnswerSchema>;

/** A part as the program that drew it describes it, in pixels of the virtual screen. */
export const describedPartSchema = place.extend({
  words: line(limits.nameLength),
  inner: z.literal(true).optional(),
});
export const describedAnswerSchema = z.object({ parts: z.array(describedPartSchema) });

/** A stilled screen that the server holds for a while. */
export const screenStillSchema = z.object({
  id: z.uuid(),
  takenAt: z.iso.datetime(),
  width: z.int(),
  height: z.int(),
  monitors: z.array(monitorSchema),
  windows: z.array(screenWindowSchema),
  noWindowList: z.literal(true).optional(),
  focused: z.int().nullable(),
  pointer: pointerImageSchema.nullable(),
  /** Windows of which not all is seen on the screen: others are in front, or they reach over its edge. */
  covered: z.array(z.int()),
  /** Those of them whose own pixels are held. */
  own: z.array(z.int()),
});
export type ScreenStill = z.infer<typeof screenStillSchema>;

/** A turn of the wheel over a place of this computer's screen. */
export const wheelTurnSchema = z.strictObject({
  x: z.int().min(0).max(limits.side),
  y: z.int().min(0).max(limits.side),
  /** Less than 0: up, or to the left. */
  clicks: z.int().min(-50).max(50),
  across: z.boolean().default(false),
});
export type WheelTurn = z.infer<typeof wheelTurnSchema>;

export const displayShotSchema = z.strictObject({
  kind: z.enum(['full', 'window', 'region']),
  /** For `full`: a monitor’s name; all of them when absent. */
  monitor: z.string().max(200).optional(),
  /** For `window`: the one in use when absent. */
  windowId: z.int().min(0).optional(),
  /** For `region`: pixels of the virtual screen. */
  region: place.optional(),
  pointer: z.boolean().default(false),
  delay: z.number().min(0).max(limits.delay).default(0),
  /** What is done with the shot, in this order. */
  then: z.array(thenStepSchema).max(8).default([]),
});
export type DisplayShot = z.infer<typeof displayShotSchema>;

export const directions = ['down', 'up', 'right', 'left'] as const;
/** Something longer than it is seen, scrolled by itself to its end. */
export const longShotSchema = z.strictObject({
  kind: z.literal('long'),
  /** The window in use when neither this nor a region is said. */
  windowId: z.int().min(0).optional(),
  /** Pixels of the virtual screen. */
  region: place.optional(),
  direction: z.enum(directions).default('down'),
  delay: z.number().min(0).max(limits.delay).default(0),
  id: z.uuid().optional(),
  title: title.optional(),
  then: z.array(thenStepSchema).max(8).default([]),
});
export type LongShot = z.infer<typeof longShotSchema>;

export const displayStoredSchema = storedSchema.extend({
  /** Said where a window is covered and its own pixels could not be had. */
  visibleOnly: z.literal(true).optional(),
  /** Said where a window reaches over the edge of the screen. */
  offDisplay: z.literal(true).optional(),
  /** What became of each step of `then`. */
  said: z.array(z.string()).optional(),
});
export type DisplayStored = z.infer<typeof displayStoredSchema>;

/** What pages are told of a take that was made while Rezzik was out of sight. */
export const takenNoticeSchema = z.object({
  routine: z.string(),
  lines: z.array(z.string()),
  shot: z.uuid().optional(),
  mark: z.boolean().optional(),
  /** Keep shall open and ask. */
  keep: z.boolean().optional(),
  /** The last seconds of this computer's screen are held from now on, or not any more. */
  held: z.boolean().optional(),
  /** A clip of this computer's screen is recorded from now on. */
  recording: z.literal(true).optional(),
  /** The screen was locked: nothing that was on it is held any more. */
  locked: z.literal(true).optional(),
  /** The last seconds are looked back at, by this routine. */
  film: z.uuid().optional(),
  /** A picture that is held still, to be chosen on as a routine says. */
  choose: z.object({ still: z.uuid(), routine: z.uuid() }).optional(),
});
export type TakenNotice = z.infer<typeof takenNoticeSchema>;
