export { closeUp as kind } from './kind';
export { closeUpSchema as schema } from './schema';
