/** What the description of the interface says (OpenAPI 3.1), as far as the page shows it. */
type Schema = {
    $ref?: string;
    type?: string | string[];
    enum?: string[];
    properties?: Record<string, Schema>;
    items?: Schema;
    required?: string[];
    format?: string;
};
export type Parameter = { name: string; in: 'path' | 'query' | 'header'; description?: string; required?: boolean; schema?: Schema };
type Described = {
    tags?: string[];
    operationId: string;
    description?: string;
    parameters?: Parameter[];
    requestBody?: { content?: Record<string, { schema?: Schema }> };
    responses?: Record<string, { content?: Record<string, { schema?: Schema }> }>;
};
export type Description = {
    info: { title: string; version: string };
    paths: Record<string, Record<string, Described>>;
    components: { schemas: Record<string, Schema> };
};
export type Operation = {
    id: string;
    method: string;
    path: string;
    tag: string;
    description: string;
    parameters: Parameter[];
    /** An example of what is sent; null where nothing is, or no JSON. */
    body: string | null;
    /** The name of what is answered. */
    answer: string;
};

const METHODS = ['get', 'post', 'put', 'patch', 'delete'];

/** All that can be asked, by what it is about and where it stands. */
export function operationsOf(description: Description): Operation[] {
    const all = Object.entries(description.paths).flatMap(([path, methods]) =>
        METHODS.filter((method) => methods[method]).map((method) => {
            const one = methods[method] as Described;
            const schema = one.requestBody?.content?.['application/json']?.schema;
            return {
                id: one.operationId,
                method: method.toUpperCase(),
                path,
                tag: one.tags?.[0] ?? '',
                description: one.description ?? '',
                // What has to be given comes first.
                parameters: (one.parameters ?? [])
                    .filter((parameter) => parameter.in !== 'header')
                    .sort((first, other) => Number(other.in === 'path') - Number(first.in === 'path')),
                body: schema ? JSON.stringify(example(schema, description, 0), null, 2) : null,
                answer: nameOf(one.responses),
            };
        }),
    );
    return all.sort((one, other) => one.tag.localeCompare(other.tag) || one.path.localeCompare(other.path));
}

function nameOf(responses: Described['responses']): string {
    const good = Object.entries(responses ?? {}).find(([status]) => status.startsWith('2'))?.[1];
    const schema = Object.values(good?.content ?? {})[0]?.schema;
    const name = (schema?.$ref ?? schema?.items?.$ref ?? '').split('/').pop() ?? '';
    return schema?.items ? `${name}[]` : name;
}

/** What a body can look like: each member with the simplest value of its type. */
function example(schema: Schema, description: Description, depth: number): unknown {
    if (schema.$ref) {
        const named = description.components.schemas[schema.$ref.split('/').pop() ?? ''];
        return named && depth < 4 ? example(named, description, depth + 1) : {};
    }
    if (schema.enum) return schema.enum[0];
    const type = Array.isArray(schema.type) ? schema.type[0] : schema.type;
    if (type === 'array') return schema.items && depth < 4 ? [example(schema.items, description, depth + 1)] : [];
    if (type === 'object' || schema.properties)
        return Object.fromEntries(
            Object.entries(schema.properties ?? {}).map(([name, one]) => [name, example(one, description, depth + 1)]),
        );
    return { integer: 1, number: 1, boolean: true }[type ?? ''] ?? '';
}

/** The address with what was given put in; parameters that are empty stay out. */
export function addressOf(operation: Operation, given: Record<string, string>): string {
    const path = operation.parameters
        .filter((parameter) => parameter.in === 'path')
        .reduce((so, { name }) => so.replace(`{${name}}`, encodeURIComponent(given[name] ?? '')), operation.path);
    const query = new URLSearchParams(
        operation.parameters.filter(({ name, in: at }) => at === 'query' && given[name]).map(({ name }) => [name, given[name] ?? '']),
    ).toString();
    return query ? `${path}?${query}` : path;
}
