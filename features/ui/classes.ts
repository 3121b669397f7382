/** Joins class names, leaving out what is not wanted. */
export const classes = (...names: (string | false | null | undefined)[]): string =>
  names.filter(Boolean).join(' ');
