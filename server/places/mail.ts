import { mailInputSchema } from '@/core/contracts/mail';
import { dropMessage } from '../mail/drop';
import { messageFor } from '../mail/message';
import { wishOf, type ServerPlace } from './contract';

/** Into the mail drop: no page is there to save a file. */
export const mail: ServerPlace<'mail'> = async ({ id, leaves }) => {
  const { bytes } = await messageFor(id, mailInputSchema.parse(wishOf(leaves)));
  await dropMessage(id, bytes);
  return { lies: 'drop' };
};
