/** How the page does what each place says: one file and one line a place. */
export { copy } from './copy';
export { here } from './here';
export { keep } from './keep';
export { keepAsk } from './keepAsk';
export { link } from './link';
export { mail } from './mail';
export { mark } from './mark';
export { print } from './print';
export { program } from './program';
export { send } from './send';
export { tag } from './tag';
