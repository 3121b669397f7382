import { z } from 'zod';
import { thenStepSchema } from '../places/registry';
import { limits } from '../values/limits';
import { webAddress, type WebAddress } from '../values/webAddress';
import { storedSchema, title } from './shot';

/** Something at the beginning that says how to get there: “https:”, “mailto:”, but no “host:8080”. */
const SCHEME = /^[a-z][a-z0-9+.-]*:(?!\d)/i;

/**
 * An address as a person writes it, as the one that is asked for: without a scheme it is https, and
 * where it leads to this computer, http.
 * @returns null where it is none
 */
export function pageAddress(written: string): WebAddress | null {
  const text = written.trim();
  const bare = !SCHEME.test(text);
  const own = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])(?=[:/?#]|$)/i.test(text);
  return webAddress(bare ? `${own ? 'http' : 'https'}://${text}` : text);
}

const isWeb = ({ protocol }: WebAddress): boolean => protocol === 'http:' || protocol === 'https:';
const NONE = 'This is no address of a page. One looks like example.org/page.';

/** @returns why it cannot be taken, in words; null where it can */
export function addressProblem(written: string): string | null {
  const text = written.trim();
  if (text === '') return 'Type the address of a page first.';
  if (text.length > limits.pathLength)
    return `An address has at most ${limits.pathLength} characters here.`;
  const url = pageAddress(text);
  if (!url || (isWeb(url) && !url.hostname)) return NONE;
  if (!isWeb(url)) return 'Only addresses that begin with http:// or https:// can be taken.';
  if (url.username || url.password)
    return 'There is a name or a password in this address. Rezzik keeps neither: leave them out.';
  return null;
}

const addressSchema = z
  .string()
  .max(2 * limits.queryLength)
  .superRefine((text, problems) => {
    const message = addressProblem(text);
    if (message) problems.addIssue({ code: 'custom', message });
  })
  .transform((text) => pageAddress(text)?.href ?? '');

export const pageWidths = { least: 320, most: 3840 } as const;
/** Longest wait before a page is taken, seconds. */
export const PAGE_WAIT = 30;

const shape = {
  address: addressSchema,
  /** Of the page as it is laid out, in CSS pixels. */
  width: z.int().min(pageWidths.least).max(pageWidths.most),
  /** Pixels of the picture for each of them. */
  scale: z.int().min(1).max(3),
  /** As it looks where dark colours are preferred. */
  dark: z.boolean(),
  /** Until nothing more is loaded, or so many seconds. */
  wait: z.union([z.literal('quiet'), z.number().min(0).max(PAGE_WAIT)]),
  /** The whole length; else what fits on a first screen. */
  whole: z.boolean(),
};

/** A page as it shall be taken. */
export const pageSchema = z.strictObject({
  ...shape,
  width: shape.width.default(1280),
  scale: shape.scale.default(1),
  dark: shape.dark.default(false),
  wait: shape.wait.default('quiet'),
  whole: shape.whole.default(true),
});
export type Page = z.infer<typeof pageSchema>;

/** A page of a way of taking: its address may not be said yet. */
export const wayPageSchema = z.strictObject({
  ...shape,
  address: z.union([z.literal(''), addressSchema]),
});
export type WayPage = z.infer<typeof wayPageSchema>;
export const firstPage: WayPage = {
  ...{ address: '', width: 1280, scale: 1, dark: false, wait: 'quiet', whole: true },
};

export const pageWishSchema = pageSchema.extend({
  /** A person allows its host to be in one's own network. */
  allowPrivate: z.boolean().default(false),
});
export type PageWish = z.infer<typeof pageWishSchema>;

export const pageShotSchema = pageWishSchema.extend({
  id: z.uuid().optional(),
  title: title.optional(),
  /** What is done with the shot, in this order. */
  then: z.array(thenStepSchema).max(8).default([]),
});
export type PageShot = z.infer<typeof pageShotSchema>;

export const jobStates = ['waiting', 'going on', 'done', 'stopped'] as const;
/** Something that takes longer than whoever asked for it waits. */
export const jobSchema = z.object({
  id: z.uuid(),
  state: z.enum(jobStates),
  /** What goes on now, in words. */
  progress: z.string().nullable(),
  /** Why it was stopped. */
  problem: z.string().nullable(),
  code: z.string().nullable(),
  /** Once it is done. */
  shot: storedSchema.nullable(),
  /** What there is to know about what came of it. */
  said: z.array(z.string()),
});
export type Job = z.infer<typeof jobSchema>;

/** A picture of a page that the server holds for a while, to be chosen on. */
export const pageStillSchema = z.object({
  id: z.uuid(),
  takenAt: z.iso.datetime(),
  width: z.int(),
  height: z.int(),
  title: z.string(),
  address: z.string(),
  said: z.array(z.string()),
});
export const pageProgressSchema = z.object({ progress: z.string().nullable() });
export type PageStill = z.infer<typeof pageStillSchema>;
