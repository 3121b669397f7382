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

/** What the server does by itself, as for whoever asks by the API. */
export const serverDoers: Doers<Handed> = { copy, keep, link, mail, program, send, tag };

/** The same where a page is told of the take, and shows what is to be shown. */
export const doersWithPage: Doers<Handed> = { ...serverDoers, mark: shown, keepAsk: shown };
