export { paintOut as kind } from './kind';
export { paintOutSchema as schema } from './schema';
