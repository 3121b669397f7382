export { blocks as kind } from './kind';
export { blocksSchema as schema } from './schema';
