import type { Doers } from '@/core/take/run';
import type { Handed } from './contract';
import * as list from './list';

/** Views are shown by the page that is told of the take, see server/display/openPages.ts. */
const shown = () => Promise.resolve(null);

/** What the server does by itself, as for whoever asks by the API. */
export const serverDoers: Doers<Handed> = list;

/** The same where a page is told of the take, and shows what is to be shown. */
export const doersWithPage: Doers<Handed> = { ...serverDoers, mark: shown, keepAsk: shown };
