/** What the server does by itself: one file and one line a place. */
export { copy } from './copy';
export { keep } from './keep';
export { link } from './link';
export { mail } from './mail';
export { program } from './program';
export { send } from './send';
export { tag } from './tag';
