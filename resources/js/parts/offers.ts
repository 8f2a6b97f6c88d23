import type { Shapes } from '../api/client';
import { session } from '../state/session.svelte';
import type { Option } from './options';

type Field = Shapes['FieldShape'];

/** The fields of a record type, and behind each reference the fields of what it refers to, two steps deep. */
export function fieldOptions(type: string, fits: (field: Field) => boolean = () => true): Option[] {
    const own = session.type(type);
    const options: Option[] = own.fields.filter(fits).map((field) => ({ key: field.name, label: field.label, group: own.label }));
    const further = (from: string, path: string, label: string, depth: number) => {
        for (const field of session.type(from).fields) {
            if (!field.target || field.system) continue;
            const nextPath = `${path}${field.name}.`;
            const nextLabel = `${label}${field.label} › `;
            for (const target of session.type(field.target).fields.filter(fits))
                options.push({
                    key: nextPath + target.name,
                    label: nextLabel + target.label,
                    group: (nextLabel + ' ').replace(' ›  ', ''),
                });
            if (depth < 2) further(field.target, nextPath, nextLabel, depth + 1);
        }
    };
    further(type, '', '', 1);
    return options;
}

export function operatorsFor(field: Field): { kind: string; label: string; operand: string }[] {
    return (session.schema?.operators ?? [])
        .filter((operator) => operator.labels[field.type])
        .map((operator) => ({ kind: operator.kind, label: operator.labels[field.type] ?? '', operand: operator.operand }));
}

export function operand(kind: string): string {
    return session.schema?.operators.find((operator) => operator.kind === kind)?.operand ?? 'one';
}

export function peopleOptions(): Option[] {
    return session.people
        .filter((person) => person.active)
        .map((person) => ({ key: person.handle, label: person.name, hint: person.team, group: 'People' }));
}
