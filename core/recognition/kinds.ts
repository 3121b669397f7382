/** What private things are looked for, with the words they are shown by. */
export const privateKinds = {
  email: 'E-mail address',
  card: 'Card number',
  phone: 'Phone number',
  iban: 'IBAN',
  ip: 'IP address',
  key: 'Key or token',
} as const;

export type PrivateKind = keyof typeof privateKinds;
