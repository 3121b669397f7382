import { z } from 'zod';
import { encodeShape } from './format';
import { line, text } from '../values/text';

/** What a message is besides what is attached to it. */
export const mailShape = {
  to: line(500).default(''),
  subject: line(300).optional(),
  text: text(20_000).default(''),
  /** Into the mail drop on this computer instead of a file to open. */
  drop: z.boolean().default(false),
};

export const mailInputSchema = z.strictObject({ ...mailShape, ...encodeShape });
export type MailInput = z.input<typeof mailInputSchema>;

export const droppedSchema = z.object({
  name: z.string(),
  subject: z.string(),
  to: z.string(),
  at: z.iso.datetime(),
  bytes: z.int(),
});
export const mailDropSchema = z.object({ messages: z.array(droppedSchema) });
export type Dropped = z.infer<typeof droppedSchema>;
