import { Type, plainToInstance } from 'class-transformer';
import {
  ArrayMaxSize,
  Equals,
  IsArray,
  IsBoolean,
  IsISO8601,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
  validateSync,
  type ValidationError,
} from 'class-validator';

export const INDEX_FILE = 'library.json';

/** Entries of a kind that a backup may have. */
const MOST = 200_000;
/** A shot that is saved every second reaches this after thirty years. */
const LAST_REVISION = 1e9;
/** File names are made of these, so they must be plain names. */
const ID = /^[\w-]{1,100}$/;
const DATE = { strict: true, strictSeparator: true };

/** A shot; its document is `shots/ID.json`. */
export class ShotEntry {
  @Matches(ID) readonly id!: string;
  @IsString() @Length(1, 1000) readonly name!: string;
  @IsInt() @Min(1) @Max(LAST_REVISION) readonly revision!: number;
  @IsISO8601(DATE) readonly createdAt!: string;
  @IsISO8601(DATE) readonly updatedAt!: string;
  @IsOptional() @IsISO8601(DATE) readonly deletedAt!: string | null;
}

/** A checkpoint of a shot; its document is `checkpoints/ID.json`. */
export class CheckpointEntry {
  @Matches(ID) readonly id!: string;
  @Matches(ID) readonly shotId!: string;
  @IsString() @Length(1, 1000) readonly name!: string;
  @IsInt() @Min(1) @Max(LAST_REVISION) readonly revision!: number;
  @IsISO8601(DATE) readonly createdAt!: string;
}

/** A model; its bytes are `models/SHA256`. */
export class ModelEntry {
  @Matches(ID) readonly id!: string;
  @IsString() @MaxLength(1000) readonly name!: string;
  @IsString() @Length(1, 1000) readonly fileName!: string;
  @Matches(/^[0-9a-f]{64}$/) readonly sha256!: string;
  @IsBoolean() readonly shipped!: boolean;
}

/** The contents of a backup, in `library.json` at its top; documents and models are files beside it. */
export class LibraryIndex {
  @Equals('fleet-rail-library') readonly format!: 'fleet-rail-library';
  @Equals(1) readonly version!: 1;

  @IsArray()
  @ArrayMaxSize(MOST)
  @ValidateNested({ each: true })
  @Type(() => ShotEntry)
  readonly shots!: readonly ShotEntry[];

  @IsArray()
  @ArrayMaxSize(MOST)
  @ValidateNested({ each: true })
  @Type(() => CheckpointEntry)
  readonly checkpoints!: readonly CheckpointEntry[];

  @IsArray()
  @ArrayMaxSize(MOST)
  @ValidateNested({ each: true })
  @Type(() => ModelEntry)
  readonly models!: readonly ModelEntry[];

  /** Sentences about everything that could not be put into the backup. */
  @IsOptional() @IsArray() @IsString({ each: true }) readonly missing?: readonly string[];
}

/** Why a text is no index of a backup: the first of its faults, with its place. */
export class IndexError extends Error {
  override readonly name = 'IndexError';
}

/**
 * Reads a backup's index, all of it checked.
 *
 * @throws IndexError with where it is wrong, what was found and what was expected
 */
export function readIndex(text: string): LibraryIndex {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    throw new IndexError(`${INDEX_FILE} is no JSON: ${(error as Error).message.slice(0, 200)}.`);
  }
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    throw new IndexError(
      `${INDEX_FILE}: expected an object with format, version, shots, checkpoints and models.`,
    );
  const index = plainToInstance(LibraryIndex, raw);
  const [error] = validateSync(index, { stopAtFirstError: true });
  if (error !== undefined) throw new IndexError(`${INDEX_FILE}: ${sentenceOf(error, '')}.`);
  refuseTwice(index);
  return index;
}

function refuseTwice({ shots, checkpoints, models }: LibraryIndex): void {
  for (const [list, entries] of Object.entries({ shots, checkpoints, models })) {
    const seen = new Set<string>();
    for (const [i, { id }] of entries.entries()) {
      if (seen.has(id)) throw new IndexError(`${INDEX_FILE}: ${list}[${i}].id: "${id}" is there twice.`);
      seen.add(id);
    }
  }
  const known = new Set(shots.map(({ id }) => id));
  const stray = checkpoints.findIndex(({ shotId }) => !known.has(shotId));
  if (stray >= 0)
    throw new IndexError(
      `${INDEX_FILE}: checkpoints[${stray}].shotId: found "${checkpoints[stray].shotId}"; expected a shot of this backup.`,
    );
}

function sentenceOf({ property, children, constraints, value }: ValidationError, before: string): string {
  const at = /^\d+$/.test(property)
    ? `${before}[${property}]`
    : before === ''
      ? property
      : `${before}.${property}`;
  if (children !== undefined && children.length > 0) return sentenceOf(children[0], at);
  const [problem] = Object.values(constraints ?? {});
  return `${at}: found ${String(JSON.stringify(value)).slice(0, 60)}; ${problem}`;
}
