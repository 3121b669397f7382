// What the commands tell the person who started them.

export const say = (words) => console.log(words);

/** Something that stops a command, in words for the person who started it. */
export class Stop extends Error {}

/** Runs a command's body; a Stop becomes its words and exit code 1. */
export async function command(body) {
  try {
    await body();
  } catch (error) {
    if (error instanceof Stop) console.error(`\n${error.message}`);
    else console.error(error);
    process.exitCode = 1;
  }
}
