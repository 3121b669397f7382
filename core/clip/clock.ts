/** Minutes and seconds as they stand under a film: 0:07.4. @param seconds from its start */
export const clockOf = (seconds: number): string => {
  const tenths = Math.floor(Math.max(0, seconds) * 10 + 1e-6);
  const rest = tenths % 600;
  return `${Math.floor(tenths / 600)}:${String(Math.floor(rest / 10)).padStart(2, '0')}.${rest % 10}`;
};
