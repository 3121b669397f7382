import { z } from 'zod';
import { limits } from './limits';
import { rulesInput, rulesPatch, rulesShape } from './rules';
import { line } from './text';

const name = line(limits.nameLength).trim().min(1, 'must not be empty');
const address = z.url({ protocol: /^https?$/, error: 'must be an address with http' }).max(2_000);
export const remoteInputSchema = z.strictObject({
  name,
  url: address,
  username: line(200).default(''),
  password: line(500).default(''),
  ...rulesInput,
});
export type RemoteInput = z.input<typeof remoteInputSchema>;

/** A password that is left out stays as it is. */
export const remotePatchSchema = z.strictObject({
  name: name.optional(),
  url: address.optional(),
  username: line(200).optional(),
  password: line(500).optional(),
  ...rulesPatch,
});

/** As it is told: the password never leaves the server. */
export const remoteSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  url: z.string(),
  username: z.string(),
  ...rulesShape,
  pattern: z.string(),
  practice: z.boolean(),
  waiting: z.int(),
  /** What cannot be made safe there, in words. */
  caution: z.string().nullable(),
});
export type Remote = z.infer<typeof remoteSchema>;
export const remotesSchema = z.object({ remotes: z.array(remoteSchema) });

export const sendingSchema = z.object({
  id: z.uuid(),
  remoteName: z.string(),
  name: z.string(),
  size: z.int(),
  state: z.enum(['waiting', 'stopped', 'sent']),
  tries: z.int(),
  problem: z.string().nullable(),
  nextTry: z.iso.datetime(),
  madeAt: z.iso.datetime(),
});
export type Sending = z.infer<typeof sendingSchema>;
export const sendingsSchema = z.object({ sendings: z.array(sendingSchema) });

export const sendInputSchema = z.strictObject({ remoteId: z.uuid() });

export const sendingPatchSchema = z.strictObject({ state: z.literal('stopped') });
