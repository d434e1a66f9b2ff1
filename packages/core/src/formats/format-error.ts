/** Characters: what was found may be long, and a message is read by a person. */
const MOST = 400;

/** A file that cannot be read: says which, what is wrong and what was expected. */
export class FormatError extends Error {
  override readonly name = 'FormatError';

  constructor(
    readonly file: string,
    problem: string,
  ) {
    super(`${file.slice(-200)}: ${problem.length > MOST ? `${problem.slice(0, MOST)}…` : problem}`);
  }
}
