import { z } from 'zod';
import { place } from './contract';

export const mail = place({
  step: z.strictObject({ do: z.literal('mail') }),
  label: () => 'Mail',
  said: ({ lies }: { lies: 'saved' | 'drop' }) =>
    lies === 'drop'
      ? 'The message lies in the mail drop, in Setup'
      : 'The message is saved; open it with your mail program',
  failing: 'No message.',
});
