/** Joins class names, leaving out what is not wanted. */
export const classes = (...names: (string | false | null | undefined)[]): string =>
  names.filter(Boolean).join(' ');

/** The look of something that can be chosen: whether it is. */
export const chosenLook = (isChosen: boolean): string =>
  isChosen ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card hover:bg-tint';
