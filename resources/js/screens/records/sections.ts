import type { Resources } from '../../api/client';

type Field = Resources['FieldResource'];

/** Fields under their headings, in the order in which each heading comes first; those without one stand first of all. */
export function inSections(fields: Field[]): [string, Field[]][] {
    const sections = new Map<string, Field[]>([['', []]]);
    for (const field of fields) sections.set(field.section, [...(sections.get(field.section) ?? []), field]);
    return [...sections].filter(([, of]) => of.length > 0);
}
