/**
 * Every kind of mark there is: one folder and one line here. Names, the schema of a mark, the tools,
 * their keys, the strip and what is searched for are made of this list by `registry.ts`. The order
 * of the lines says nothing; a kind tells its place among the tools itself.
 */
export * as arrow from './arrow';
export * as blocks from './blocks';
export * as blur from './blur';
export * as box from './box';
export * as callout from './callout';
export * as closeUp from './closeUp';
export * as cover from './cover';
export * as dim from './dim';
export * as highlighter from './highlighter';
export * as line from './line';
export * as number from './number';
export * as oval from './oval';
export * as paintOut from './paintOut';
export * as pen from './pen';
export * as piece from './piece';
export * as polygon from './polygon';
export * as stamp from './stamp';
export * as text from './text';
