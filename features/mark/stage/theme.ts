/** The theme's colours for canvases, which cannot read class names. */
export const themeColour = (
  token: 'petrol' | 'card' | 'ink' | 'paper' | 'soft' | 'line' | 'saffron',
): string => getComputedStyle(document.documentElement).getPropertyValue(`--color-${token}`).trim();
