import { exchange } from './exchange';
import { inWords } from './problems';
import { hostOf, refuseForbidden } from './reach';

/** Whoever waits for the address does not wait for long, ms. */
const PATIENCE = { silence: 4_000, whole: 6_000 };

/** The address of a file by its pattern, where `{name}` stands for its name with its subfolders. */
export const addressBy = (pattern: string, name: string): string =>
  pattern.replaceAll('{name}', name.split('/').map(encodeURIComponent).join('/'));

/** The address under which others see a file, looked at once whether it is there. */
export async function publicAddress(
  pattern: string,
  name: string,
  signal: AbortSignal,
): Promise<{ address: string | null; problem: string | null }> {
  const address = addressBy(pattern, name);
  try {
    const url = new URL(address);
    refuseForbidden(hostOf(url));
    const { status } = await exchange({
      ...{ url, method: 'HEAD', path: url.pathname + url.search, headers: {} },
      ...{ most: 0, fingerprint: null, patience: PATIENCE, signal },
    });
    if (status >= 200 && status < 300) return { address, problem: null };
    return { address: null, problem: `It is not seen at ${address} (answered ${status}).` };
  } catch (error) {
    return {
      address: null,
      problem: `Whether it is seen at ${address} is not known. ${inWords(error).message}`,
    };
  }
}
