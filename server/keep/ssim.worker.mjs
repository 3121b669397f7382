// Run as it is, in a thread beside the server's own: comparing two large pictures takes as long as
// a second, in which the server must go on answering. server/keep/compare.ts talks to it.

import { parentPort } from 'node:worker_threads';
import { ssim } from 'ssim.js';

parentPort.on('message', ({ id, a, b }) => {
  try {
    const { mssim, ssim_map: map } = ssim(a, b, { ssim: 'fast', downsample: false });
    const data = Float64Array.from(map.data);
    const { width, height } = map;
    parentPort.postMessage({ id, mssim, data, width, height }, [data.buffer]);
  } catch (error) {
    parentPort.postMessage({ id, problem: String(error) });
  }
});
