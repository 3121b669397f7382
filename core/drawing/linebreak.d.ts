/** The package brings no types of its own. */
declare module 'linebreak' {
  /** Goes through the places where a line of text may be broken (Unicode Standard Annex 14). */
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { position: number; required: boolean } | null;
  }
}
