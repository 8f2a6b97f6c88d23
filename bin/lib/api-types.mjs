// Writes the types of the screens from what is described: the API, and the rule file by its JSON Schema.
import { readFile, writeFile } from 'node:fs/promises';
import openapi, { astToString } from 'openapi-typescript';

const INTO = 'resources/js/api';
const read = async (path) => JSON.parse(await readFile(path, 'utf8'));

/** "Where the kind is so, then" is how a schema tells kinds apart with good messages; a type says it as one of several objects. */
function alternatives(schema) {
    if (Array.isArray(schema)) return schema.map(alternatives);
    if (schema === null || typeof schema !== 'object') return schema;
    if (typeof schema.$ref === 'string') return { $ref: schema.$ref.replace('#/$defs/', '#/components/schemas/') };
    const kinds = schema.properties?.kind?.enum && Array.isArray(schema.allOf) ? schema.allOf : [];
    if (kinds.length === 0) return Object.fromEntries(Object.entries(schema).map(([key, value]) => [key, alternatives(value)]));
    const { kind, ...shared } = schema.properties;
    return {
        oneOf: kinds.map(({ if: given, then }) => ({
            type: 'object',
            required: ['kind', ...(then.required ?? [])],
            additionalProperties: false,
            properties: alternatives({ ...shared, ...then.properties, kind: given.properties.kind }),
        })),
    };
}

async function write(name, document) {
    await writeFile(`${INTO}/${name}.d.ts`, `// Made by "npm run api".\n${astToString(await openapi(document))}`);
}

const { $defs, $id, $schema, ...file } = await read('docs/schema/rule.schema.json');
await write('schema', await read('docs/openapi.json'));
await write('rule', {
    openapi: '3.1.0',
    info: { title: file.title, version: '1' },
    paths: {},
    components: { schemas: alternatives({ RuleFile: file, ...$defs }) },
});
