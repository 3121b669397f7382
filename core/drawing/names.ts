/** The faces of text that ship with the app. */
export const faces = ['plain', 'display', 'hand', 'fixed'] as const;
export type Face = (typeof faces)[number];

/** How lines of text stand to each other. */
export const aligns = ['start', 'centre', 'end'] as const;
export type Align = (typeof aligns)[number];
