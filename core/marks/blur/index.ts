export { blur as kind } from './kind';
export { blurSchema as schema } from './schema';
