/**
 * The colour-blind-safe eight of M. Okabe and K. Ito, Color Universal Design (2008),
 * with the names they are published under.
 */
export const markColours = [
  { name: 'Black', hex: '#000000' },
  { name: 'Vermillion', hex: '#D55E00' },
  { name: 'Orange', hex: '#E69F00' },
  { name: 'Yellow', hex: '#F0E442' },
  { name: 'Bluish green', hex: '#009E73' },
  { name: 'Sky blue', hex: '#56B4E9' },
  { name: 'Blue', hex: '#0072B2' },
  { name: 'Reddish purple', hex: '#CC79A7' },
] as const;

export const firstMarkColour = '#D55E00';

/** The published name of a colour, or its value. */
export const colourName = (hex: string): string =>
  markColours.find((c) => c.hex === hex.toUpperCase())?.name ?? hex.toUpperCase();
