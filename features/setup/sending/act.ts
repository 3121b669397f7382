/** Does something, reads anew what is shown, and says what went wrong; false when it did. */
export type Act = (work: Promise<unknown>) => Promise<boolean>;
