import { BadRequestException } from '@nestjs/common';
import { newShot } from '@fleet-rail/core/shots';
import { CheckedShot } from '../documents/checked-shot.js';
import { CreateShotDto, RenameShotDto, SaveShotDto } from '../shots/shots.dto.js';
import { BodyPipe } from './body-pipe.js';
import { LargeBody } from './json-body.js';

const pipe = new BodyPipe(null);
const read = (metatype: new () => object, body: unknown) => pipe.transform(body, { type: 'body', metatype });
const refusal = async (metatype: new () => object, body: unknown) => {
  const error: unknown = await read(metatype, body).catch((thrown: unknown) => thrown);
  expect(error).toBeInstanceOf(BadRequestException);
  return (error as BadRequestException).getResponse() as { message: string[] };
};

it('hands a document on as it is stored, with defaults for what was left out', async () => {
  const document = { format: 'fleet-rail-shot', version: 2, name: 'A' };
  const body = (await read(SaveShotDto, { document, revision: 3 })) as SaveShotDto;
  expect(body).toBeInstanceOf(SaveShotDto);
  expect(body.revision).toBe(3);
  expect(body.document).toBeInstanceOf(CheckedShot);
  expect(JSON.parse(body.document.columns.document)).toEqual(newShot({ name: 'A' }));
});

it('refuses a document with its place', async () => {
  const fast = { format: 'fleet-rail-shot', version: 2, name: 'A', fps: 'fast' };
  await expect(read(SaveShotDto, { document: fast, revision: 1 })).rejects.toThrow('fps: found "fast"');
});

it('refuses a large body where no document is expected', async () => {
  const large = new LargeBody(Buffer.alloc(2 ** 20));
  await expect(read(RenameShotDto, large)).rejects.toMatchObject({ status: 413 });
});

it('refuses what is beside it as ever', async () => {
  const document = newShot({ name: 'A' });
  expect((await refusal(SaveShotDto, { document, revision: 0 })).message).toEqual([
    'revision must not be less than 1',
  ]);
  expect((await refusal(SaveShotDto, { document, revision: 1, more: 2 })).message).toEqual([
    'property more should not exist',
  ]);
  expect((await refusal(CreateShotDto, { name: ' ' })).message).toEqual([
    'name has to hold something that can be read',
  ]);
});

it.each([[undefined], [null], [7], ['{}'], [[{ name: 'A' }]]])(
  'refuses %j in place of a document',
  async (document) => {
    expect((await refusal(SaveShotDto, { document, revision: 1 })).message).toEqual([
      'document must be an object',
    ]);
  },
);

it('lets one be left out where it may be', async () => {
  const body = (await read(CreateShotDto, { name: 'Empty' })) as CreateShotDto;
  expect(body.document).toBeUndefined();
  expect(body.name).toBe('Empty');
});
