/**
 * Every place: one file here and one line. What a way may say, what is offered and what is said are
 * made of this list by `registry.ts`.
 */
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
