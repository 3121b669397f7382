export { dim as kind } from './kind';
export { dimSchema as schema } from './schema';
