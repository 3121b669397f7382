export { wedge as kind } from './kind';
export { wedgeSchema as schema } from './schema';
