/** A file that cannot be read: says which, what is wrong and what was expected. */
export class FormatError extends Error {
  override readonly name = 'FormatError';

  constructor(
    readonly file: string,
    problem: string,
  ) {
    super(`${file}: ${problem}`);
  }
}
