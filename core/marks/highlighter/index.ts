export { highlighter as kind } from './kind';
export { highlighterSchema as schema } from './schema';
