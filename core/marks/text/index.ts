export { text as kind } from './kind';
export { textSchema as schema } from './schema';
