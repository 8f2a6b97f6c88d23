import type { Shapes } from '../api/client';
import type { Document } from '../state/document.svelte';
import { session } from '../state/session.svelte';
import type { Option } from './options';

export type Field = Shapes['FieldShape'];

/** The fields of a record type, and behind each reference the fields of what it refers to, two steps deep. */
export function fieldOptions(type: string, fits: (field: Field) => boolean = () => true): Option[] {
    const own = session.type(type);
    const options: Option[] = own.fields.filter(fits).map((field) => ({ key: field.name, label: field.label, group: own.label }));
    const further = (from: string, path: string, label: string, depth: number) => {
        for (const field of session.type(from).fields) {
            const behind = session.behind(field);
            if (!behind || (field.system && field.type !== 'person')) continue;
            const nextPath = `${path}${field.name}.`;
            const nextLabel = `${label}${field.label} › `;
            for (const target of session.type(behind).fields.filter(fits))
                options.push({
                    key: nextPath + target.name,
                    label: nextLabel + target.label,
                    group: (nextLabel + ' ').replace(' ›  ', ''),
                });
            if (depth < 2 && field.type !== 'person') further(behind, nextPath, nextLabel, depth + 1);
        }
    };
    further(type, '', '', 1);
    return options;
}

/** What a text can merge: what is said of every record, of the change, and the fields. */
export function mergeOptions(type: string): Option[] {
    const group = (name: string) => (name.startsWith('was.') ? 'Before the change' : /^chang/.test(name) ? 'The change' : 'The record');
    const pieces = session.type(type).pieces.map((piece) => ({ key: piece.kind, label: piece.label, group: group(piece.kind) }));
    const isOld = (option: Option) => option.key.startsWith('was.');
    return [...pieces.filter((option) => !isOld(option)), ...fieldOptions(type), ...pieces.filter(isOld)];
}

export function ownFields(type: string, fits: (field: Field) => boolean = () => true): Option[] {
    return fieldOptions(type, fits).filter((option) => !option.key.includes('.'));
}

/** What a condition can look at besides fields. */
export function furtherSubjects(type: string, ofChange: boolean, ends = false): Option[] {
    const children = (of: string, from: string, label: string): Option[] =>
        (session.schema?.types ?? []).flatMap((child) =>
            child.fields
                .filter((field) => field.target === of && !field.system)
                .map((field) => ({
                    key: `:total:${from}${child.name}.${field.name}`,
                    label: `number of ${label}${child.plural}`,
                    group: 'Counted',
                })),
        );
    const own = session.type(type);
    return [
        ...children(type, '', ''),
        ...own.fields
            .filter((field) => field.target && !field.system)
            .flatMap((field) => children(field.target ?? '', `${field.name}>`, `the ${field.label}’s `)),
        ...(ends ? [{ key: ':happened', label: 'something arrives: a reply, a comment…', group: 'What happens' }] : []),
        ...(ofChange ? [{ key: ':made_by', label: 'who or what made the change', group: 'The change' }] : []),
        { key: ':formula', label: 'a formula…', group: 'More' },
        { key: ':named', label: 'a named condition…', group: 'More' },
    ];
}

/** The kind of value a condition compares: that of its field, or of what it counts. */
export function comparedField(document: Document, node: string, on: string): Field | undefined {
    const total = document.at(`${node}/total`);
    if (typeof total !== 'object' || total === null || Array.isArray(total))
        return session.path(on, String(document.at(`${node}/field`) ?? ''))?.field;
    const child = String(total.relation ?? '')
        .split('>')
        .at(-1)
        ?.split('.')[0];
    const field = child && total.of !== 'count' ? session.field(child, String(total.field ?? '')) : undefined;
    return field ?? { ...numberField, label: 'Number' };
}

const numberField: Field = {
    name: 'count',
    label: 'Number',
    type: 'number',
    required: false,
    system: false,
    choices: [],
    target: null,
    scale: 0,
    maxLength: 0,
    currency: null,
    min: null,
    max: null,
    formula: null,
};

export function operatorsFor(field: Field, own = true): { kind: string; label: string; operand: string }[] {
    return (session.schema?.operators ?? [])
        .filter((operator) => operator.labels[field.type] && (own || !operator.ofChange))
        .map((operator) => ({ kind: operator.kind, label: operator.labels[field.type] ?? '', operand: operator.operand }));
}

export function operand(kind: string): string {
    return session.schema?.operators.find((operator) => operator.kind === kind)?.operand ?? 'one';
}

/** Whether a comparison takes another field, a person found or a moving date on its right. */
export function takesGiven(kind: string): boolean {
    return session.schema?.operators.find((operator) => operator.kind === kind)?.given ?? false;
}

/** What a comparison takes on its right: a value of the field, or of what it asks about the person in the field. */
export function operandField(kind: string, field: Field): Field {
    return isTeam(kind) ? (session.field(session.schema?.people.name ?? '', 'team') ?? field) : field;
}

/** Whether a comparison asks which team the person in a field belongs to. */
export function isTeam(kind: string): boolean {
    return kind.endsWith('in_team');
}

/** The teams somebody at work belongs to. */
export function teams(): string[] {
    return [...new Set(session.people.filter((person) => person.active).map((person) => person.team))].sort();
}

export function peopleOptions(): Option[] {
    return session.people
        .filter((person) => person.active)
        .map((person) => ({ key: person.handle, label: person.name, hint: person.team, group: 'People' }));
}

/** Ways to find a person from a record, as keys that personExpression() reads. */
export function personOptions(type: string): Option[] {
    const group = 'From the record';
    const fields = fieldOptions(type, (field) => field.type === 'person' && !field.system).filter(
        (option) =>
            option.key !== session.type(type).owner && option.key.split('.').length < 3 && !/^(created_by|updated_by)\./.test(option.key),
    );
    return [
        { key: 'owner', label: 'the owner', group },
        { key: 'creator', label: 'the creator', group },
        { key: 'doer', label: 'whoever made the change', group },
        ...fields.map((option) => ({ key: `field:${option.key}`, label: `the ${option.label}`, group })),
        { key: 'manager:owner', label: 'the owner’s manager', group },
        { key: 'manager:doer', label: 'whoever made the change’s manager', group },
        ...teams().flatMap((team) => [
            { key: `turn:${team}`, label: `the next of ${team} in turn`, group: 'Teams' },
            { key: `least:${team}`, label: `the least loaded of ${team}`, group: 'Teams' },
        ]),
    ];
}

export const NUMBERS = ['number', 'money', 'percent'];
export const MOMENTS = ['date', 'date_time'];
export const SETS = ['choices', 'tags'];
