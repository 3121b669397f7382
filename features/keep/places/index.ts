import type { LucideIcon } from 'lucide-react';
import type { PlaceName } from '@/core/places/registry';
import type { Doers } from '@/core/take/run';
import type { Handed, PagePlace } from './contract';
import { copy } from './copy';
import { here } from './here';
import { keep } from './keep';
import { keepAsk } from './keepAsk';
import { link } from './link';
import { mail } from './mail';
import { mark } from './mark';
import { print } from './print';
import { program } from './program';
import { send } from './send';
import { tag } from './tag';

/** How the page does what each place says. */
const places: { [N in PlaceName]: PagePlace<N> } = {
  ...{ copy, here, keep, keepAsk, link, mail, mark, print, program, send, tag },
};

export const pageDoers: Doers<Handed> = {
  ...{ copy: copy.do, here: here.do, keep: keep.do, keepAsk: keepAsk.do, link: link.do },
  ...{ mail: mail.do, mark: mark.do, print: print.do, program: program.do, send: send.do },
  tag: tag.do,
};

export const iconOf = (place: PlaceName): LucideIcon => places[place].icon;
