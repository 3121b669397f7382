import { messageOf } from '../api/ask';

/** Does something, reads anew what is shown, and says what went wrong; false when it did. */
export type Act = (work: Promise<unknown>) => Promise<boolean>;

export const actThen =
  (read: () => Promise<unknown>, onProblem: (words: string) => void): Act =>
  async (work) => {
    try {
      await work;
      await read();
      return true;
    } catch (error) {
      onProblem(messageOf(error));
      return false;
    }
  };
