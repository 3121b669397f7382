export { cover as kind } from './kind';
export { coverSchema as schema } from './schema';
