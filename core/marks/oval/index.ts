export { oval as kind } from './kind';
export { ovalSchema as schema } from './schema';
