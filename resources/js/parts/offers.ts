import type { Resources } from '../api/client';
import { session } from '../state/session.svelte';
import type { Option } from './options';

export type Field = Resources['FieldResource'];

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

/** What a number of records is counted in. */
export const plainNumber: Field = {
    name: 'count',
    label: 'Number',
    type: 'number',
    required: false,
    system: false,
    help: '',
    choices: [],
    target: null,
    scale: 0,
    maxLength: 0,
    currency: null,
    min: null,
    max: null,
    formula: null,
    readOnly: false,
    section: '',
    default: null,
    unique: false,
    requiredAt: [],
    onDelete: 'keep',
    numbering: null,
};

/** The teams somebody at work belongs to. */
export function teams(): string[] {
    return [...new Set(session.people.filter((person) => person.active).map((person) => person.team))].sort();
}

export function peopleOptions(): Option[] {
    return session.people
        .filter((person) => person.active)
        .map((person) => ({ key: person.handle, label: person.name, hint: person.team, group: 'People' }));
}

export const NUMBERS = ['number', 'money', 'percent'];
export const MOMENTS = ['date', 'date_time'];
export const SETS = ['choices', 'tags'];
