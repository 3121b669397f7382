import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type { z } from 'zod';
import type { mailInputSchema } from '@/core/contracts/mail';
import { leavingDescription, leavingTitle } from '@/core/naming/leaving';
import { safeName } from '@/core/naming/safeName';
import { encodeShot } from '../keep/encode';
import { formats } from '../keep/formats';
import { getPaintable } from '../shots/rows';

/**
 * A message with the picture attached and its description as the alternative text (RFC 5322, RFC
 * 2045), which any mail program opens as a draft. Address and window title do not go along.
 * @throws Fault 404
 */
export async function messageFor(
  shotId: string,
  input: z.output<typeof mailInputSchema>,
): Promise<Buffer> {
  const shot = await getPaintable(shotId);
  const { to, subject, text, drop: _, ...wish } = input;
  const format = formats[wish.format ?? 'png'];
  const { bytes } = await encodeShot(shot, { ...wish, format: format.name });
  const title = leavingTitle(shot);
  const alt = leavingDescription(shot) ?? title;
  const composer = new MailComposer({
    ...(to && { to }),
    subject: subject ?? title,
    text: [text, alt && `[${alt}]`].filter(Boolean).join('\n\n'),
    // Mail programs that know it open the message for writing, not for reading.
    headers: { 'X-Unsent': '1' },
    attachments: [
      {
        filename: `${safeName(title)}.${format.extension}`,
        content: Buffer.from(bytes),
        contentType: format.mediaType,
        headers: { 'Content-Description': alt.replace(/\s+/g, ' ').slice(0, 900) },
      },
    ],
  });
  return composer.compile().build();
}
