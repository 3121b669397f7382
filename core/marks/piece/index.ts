export { piece as kind } from './kind';
export { pieceSchema as schema } from './schema';
