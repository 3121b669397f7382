/** Everything that is one for the whole process, by its name. */
const boxes = ((globalThis as { rezzik?: Map<string, object> }).rezzik ??= new Map<
  string,
  object
>());

/**
 * What must be one for the whole process: start-up and each route may load a file anew, and then its
 * own variables are there several times. All state of the server lies here, or in the database.
 */
export function shared<T extends object>(name: string, atFirst: () => T): T {
  const box = boxes.get(name) ?? atFirst();
  boxes.set(name, box);
  // A name is used by one file alone, always with the same type.
  return box as T;
}
