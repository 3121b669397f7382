export { stamp as kind } from './kind';
export { stampSchema as schema } from './schema';
