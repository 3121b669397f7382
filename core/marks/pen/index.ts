export { pen as kind } from './kind';
export { penSchema as schema } from './schema';
