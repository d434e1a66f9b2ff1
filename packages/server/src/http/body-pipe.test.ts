import { BadRequestException } from '@nestjs/common';
import { CreateShotDto, SaveShotDto } from '../shots/shots.dto.js';
import { BodyPipe } from './body-pipe.js';

const pipe = new BodyPipe();
const read = (metatype: new () => object, body: unknown) => pipe.transform(body, { type: 'body', metatype });
const refusal = async (metatype: new () => object, body: unknown) => {
  const error: unknown = await read(metatype, body).catch((thrown: unknown) => thrown);
  expect(error).toBeInstanceOf(BadRequestException);
  return (error as BadRequestException).getResponse() as { message: string[] };
};

it('hands a document on as it came, not looked into and not copied', async () => {
  const document = JSON.parse('{"name":"A","paths":[{"points":[]}],"odd":{"__proto__":{"x":1}}}') as object;
  const before = JSON.stringify(document);
  const body = (await read(SaveShotDto, { document, revision: 3 })) as SaveShotDto;
  expect(body).toBeInstanceOf(SaveShotDto);
  expect(body.revision).toBe(3);
  expect(body.document).toBe(document);
  expect(JSON.stringify(document)).toBe(before);
});

it('refuses what is beside it as ever', async () => {
  const document = { name: 'A' };
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
  expect(await read(CreateShotDto, { document: { name: 'A' } })).toEqual({ document: { name: 'A' } });
});
