import type { Doers } from '@/core/take/run';
import type { Handed } from './contract';
import { copy } from './copy';
import { keep } from './keep';
import { link } from './link';
import { mail } from './mail';
import { program } from './program';
import { send } from './send';
import { tag } from './tag';

/** Views are shown by the page that is told of the take, see server/display/openPages.ts. */
const shown = () => Promise.resolve(null);

/** How the server does what places say, where no page of Rezzik is in front. */
export const serverDoers: Doers<Handed> = {
  ...{ copy, keep, link, mail, program, send, tag },
  mark: shown,
  keepAsk: shown,
};
