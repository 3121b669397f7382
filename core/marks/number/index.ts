export { number as kind } from './kind';
export { numberSchema as schema } from './schema';
