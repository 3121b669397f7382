export { callout as kind } from './kind';
export { calloutSchema as schema } from './schema';
