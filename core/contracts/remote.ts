import { z } from 'zod';
import {
  factsRuleSchema,
  firstFacts,
  formatNames,
  optionsSchema,
  quality,
  sizeWishSchema,
} from './format';
import { limits } from './limits';
import { namePattern } from './namePattern';
import { line } from './text';

const address = z.url({ protocol: /^https?$/ }).max(2_000);
export const remoteInputSchema = z.strictObject({
  name: line(limits.nameLength).trim().min(1, 'must not be empty'),
  url: address,
  username: line(200).default(''),
  password: line(500).default(''),
  format: z.enum(formatNames).default('png'),
  quality: quality.default(85),
  options: optionsSchema.default({}),
  size: sizeWishSchema.default({}),
  facts: factsRuleSchema.default(firstFacts),
  pattern: namePattern.default('{title} {date} {time}'),
});
export type RemoteInput = z.input<typeof remoteInputSchema>;

/** As it is told: the password never leaves the server. */
export const remoteSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  url: z.string(),
  username: z.string(),
  format: z.enum(formatNames),
  quality,
  pattern: z.string(),
  practice: z.boolean(),
  waiting: z.int(),
});
export type Remote = z.infer<typeof remoteSchema>;
export const remotesSchema = z.object({ remotes: z.array(remoteSchema) });

export const sendingSchema = z.object({
  id: z.uuid(),
  remoteName: z.string(),
  name: z.string(),
  size: z.int(),
  state: z.enum(['waiting', 'sent']),
  tries: z.int(),
  problem: z.string().nullable(),
  nextTry: z.iso.datetime(),
  madeAt: z.iso.datetime(),
});
export type Sending = z.infer<typeof sendingSchema>;
export const sendingsSchema = z.object({ sendings: z.array(sendingSchema) });

export const sendInputSchema = z.strictObject({ remoteId: z.uuid() });
