export { box as kind } from './kind';
export { boxSchema as schema } from './schema';
