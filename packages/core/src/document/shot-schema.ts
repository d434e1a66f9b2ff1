import { classesOf, fieldsOf, jsonSchemaOf, type FieldMeaning, type JsonSchema } from './json-schema.js';
import { SHOT_VERSION, Shot } from './shot.js';

/** The JSON Schema of a shot file of the latest version. */
export function shotSchema(): JsonSchema {
  return jsonSchemaOf(Shot, `Fleet Rail shot, version ${SHOT_VERSION}`);
}

/** The fields of a shot file as Markdown: a table for each class, in the order in which they are reached from the shot. */
export function shotFieldTables(): string {
  return classesOf(Shot)
    .map((of) => {
      const rows = fieldsOf(of).map(
        (field) => `| \`${field.key}\` | ${valueOf(field)} | ${defaultOf(field)} |`,
      );
      return [`### ${of.name}`, '', '| field | value | default |', '| --- | --- | --- |', ...rows].join('\n');
    })
    .join('\n\n');
}

function valueOf({ expected, part, orNull }: FieldMeaning): string {
  if (part === null) return expected.replaceAll('|', '\\|');
  return `${part.each ? 'list of ' : ''}[${part.of.name}](#${part.of.name.toLowerCase()})${orNull ? ', or null' : ''}`;
}

function defaultOf({ byDefault, isRequired, part }: FieldMeaning): string {
  if (isRequired) return 'required';
  if (byDefault === undefined) return 'left out';
  return part !== null && !part.each && byDefault !== null
    ? 'its defaults'
    : `\`${JSON.stringify(byDefault)}\``;
}
