import { Fault } from '../base/fault';
import { makePlace } from './held';
import { allowedPath, keepFault, placeProblem } from './place';

/**
 * Checks a folder for keeping, making it first when asked.
 * @throws Fault 400 with the reason in plain words
 */
export async function checkPlace(wanted: string, make: boolean): Promise<string> {
  const path = await allowedPath(wanted);
  if (make) {
    await makePlace(path).catch((error: unknown) => {
      throw error instanceof Fault ? error : keepFault(error, path);
    });
  }
  const problem = await placeProblem(path);
  if (problem) throw new Fault(400, problem.code, problem.message);
  return path;
}
