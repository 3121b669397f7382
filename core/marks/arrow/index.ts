export { arrow as kind } from './kind';
export { arrowSchema as schema } from './schema';
