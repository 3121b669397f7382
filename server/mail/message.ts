import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type { z } from 'zod';
import type { mailInputSchema } from '@/core/contracts/mail';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { safeName } from '@/core/naming/safeName';
import { encodeShot } from '../keep/encode';
import { formats } from '../formats';
import { getSettings } from '../settings/settings';
import { getPaintable } from '../shots/rows';

/** A message, and what its file is called. */
export interface Message {
  bytes: Buffer;
  name: string;
}

/** What a message says, and what is attached to it. */
export interface Draft {
  to: string;
  /** The title where there is none. */
  subject?: string | undefined;
  text: string;
  /** Names what is attached. */
  title: string;
  /** What is attached, for those who cannot see it. */
  alt: string;
  attached: { bytes: Uint8Array; type: string; extension: string };
}

/**
 * A message with a file attached (RFC 5322, RFC 2045), which any mail program opens as a draft.
 */
export async function draftOf({
  to,
  subject,
  text,
  title,
  alt,
  attached,
}: Draft): Promise<Message> {
  const { mailFrom } = await getSettings();
  const name = safeName(title);
  const composer = new MailComposer({
    ...(mailFrom && { from: mailFrom }),
    ...(to && { to }),
    subject: subject ?? title,
    text: [text, alt && `[${alt}]`].filter(Boolean).join('\n\n'),
    // Mail programs that know it open the message for writing, not for reading.
    headers: { 'X-Unsent': '1' },
    attachments: [
      {
        // Else the name stood in the kind of the part, too, where RFC 2047, §5, does not allow it.
        filename: false,
        content: Buffer.from(attached.bytes),
        contentType: attached.type,
        // Names of files hold no quotes.
        contentDisposition: `attachment; filename="${name}.${attached.extension}"`,
        headers: { 'Content-Description': alt.replace(/\s+/g, ' ').slice(0, 900) },
      },
    ],
    // Lines end as messages have them (RFC 5322, §2.3).
    newline: 'windows',
  });
  return { bytes: await composer.compile().build(), name: `${name}.eml` };
}

/**
 * A message with the picture attached and its description as the alternative text. Address and
 * window title do not go along.
 * @throws Fault 404
 */
export async function messageFor(
  shotId: string,
  input: z.output<typeof mailInputSchema>,
): Promise<Message> {
  const shot = await getPaintable(shotId);
  const { to, subject, text, drop: _, ...wish } = input;
  const format = formats[wish.format ?? 'png'];
  const { bytes } = await encodeShot(shot, { ...wish, format: format.name });
  const title = leavingTitle(shot);
  return draftOf({
    ...{ to, subject, text, title, alt: leavingDescription(shot) ?? title },
    attached: { bytes, type: format.mediaType, extension: format.extension },
  });
}
