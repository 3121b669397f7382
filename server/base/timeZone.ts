/** Where this computer is, as an IANA name. */
export const timeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
