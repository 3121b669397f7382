import pLimit from 'p-limit';

/**
 * Pictures that are painted and encoded at the same time; others wait. Each may need its pixels
 * several times over in memory, and threads must stay free for whatever else is asked meanwhile.
 */
export const inEncodingQueue = pLimit(2);
