/** What is used of an address of the web (WHATWG URL). */
export interface WebAddress {
  href: string;
  /** “https:” */
  protocol: string;
  hostname: string;
  username: string;
  password: string;
}

/** Browsers and Node have it alike, though it is of neither language nor core. */
const { URL } = globalThis as unknown as { URL: { parse: (text: string) => WebAddress | null } };

/** @returns null where it is none */
export const webAddress = (text: string): WebAddress | null => URL.parse(text);
