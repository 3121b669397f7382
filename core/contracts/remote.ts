import { z } from 'zod';
import { limits } from '../values/limits';
import { rulesInput, rulesPatch, rulesShape } from './rules';
import { line } from '../values/text';

const name = line(limits.nameLength).trim().min(1, 'must not be empty');
const address = z.url({ protocol: /^https?$/, error: 'must be an address with http' }).max(2_000);
/** Where others see what lies there: `{name}` stands for the name of the file, with its subfolders. */
const publicAddress = z.union([
  z.literal(''),
  address.refine((url) => url.includes('{name}'), 'must hold {name}, for the name of the file'),
]);
/** SHA-256 of a certificate, as programs show it. */
const fingerprint = z.string().regex(/^(?:[0-9A-F]{2}:){31}[0-9A-F]{2}$/);

/** What a person allows for one remote folder. */
const allowed = {
  /** The password may go where others on the way can read it. */
  readable: z.boolean(),
  /** The one certificate that is trusted besides those the computer knows. */
  fingerprint: fingerprint.nullable(),
  address: publicAddress,
};

export const remoteInputSchema = z.strictObject({
  name,
  url: address,
  username: line(200).default(''),
  password: line(500).default(''),
  readable: allowed.readable.default(false),
  fingerprint: allowed.fingerprint.default(null),
  address: allowed.address.default(''),
  ...rulesInput,
});
export type RemoteInput = z.input<typeof remoteInputSchema>;

/** A password that is left out stays as it is. */
export const remotePatchSchema = z.strictObject({
  name: name.optional(),
  url: address.optional(),
  username: line(200).optional(),
  password: line(500).optional(),
  readable: allowed.readable.optional(),
  fingerprint: allowed.fingerprint.optional(),
  address: allowed.address.optional(),
  /** A person has looked at one that came in with an archive. */
  confirmed: z.literal(true).optional(),
  ...rulesPatch,
});

/** As it is told: the password never leaves the server. */
export const remoteSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  url: z.string(),
  username: z.string(),
  readable: z.boolean(),
  fingerprint: z.string().nullable(),
  address: z.string(),
  ...rulesShape,
  pattern: z.string(),
  practice: z.boolean(),
  /** Came in with an archive: nothing is sent there until a person confirms it. */
  unconfirmed: z.boolean(),
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
  /** Under which others see it, once it was found there. */
  address: z.string().nullable(),
  addressProblem: z.string().nullable(),
  nextTry: z.iso.datetime(),
  madeAt: z.iso.datetime(),
});
export type Sending = z.infer<typeof sendingSchema>;
export const sendingsSchema = z.object({ sendings: z.array(sendingSchema) });

export const sendInputSchema = z.strictObject({ remoteId: z.uuid() });

export const sendingPatchSchema = z.strictObject({ state: z.literal('stopped') });
