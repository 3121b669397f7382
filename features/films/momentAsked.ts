/** The moment of a clip that the address tells, seconds from its start; 0 where it tells none. */
export const momentAsked = (): number =>
  Math.max(0, Number(new URLSearchParams(window.location.search).get('at')) || 0);
