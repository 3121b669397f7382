export { polygon as kind } from './kind';
export { polygonSchema as schema } from './schema';
