export { line as kind } from './kind';
export { lineSchema as schema } from './schema';
