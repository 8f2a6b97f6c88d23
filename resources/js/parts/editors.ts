import type { Shapes } from '../api/client';
import type { Document } from '../state/document.svelte';
import { at, put, split, type Json, type JsonObject } from '../state/pointer';
import { localDay } from '../state/moments';
import { clock, session } from '../state/session.svelte';
import { comparedField, isTeam, operand, operatorsFor } from './offers';

/* What choosing a word's new meaning does to the rule file. */

export function chooseTrigger(document: Document, kind: string): Promise<void> {
    // What is chosen again stays as it is.
    if (document.at('/when/kind') === kind) return Promise.resolve();
    return document.edit((file) => {
        const fields = at(file, '/when/fields');
        const about = at(file, '/when/about');
        const date = session.type(document.type).fields.find((field) => !field.system && ['date', 'date_time'].includes(field.type))?.name;
        const begun: Record<string, JsonObject> = {
            date: { ...(date ? { field: date } : {}), amount: 0, unit: 'day', time: '09:00' },
            quiet: { of: 'activity', amount: 3, unit: 'day' },
            timetable: { rrule: 'FREQ=DAILY', time: '08:00', from: localDay(clock.now), workingDays: true },
        };
        file.when = { kind, ...begun[kind] };
        if (kind === 'changed' && Array.isArray(fields)) file.when.fields = fields;
        if (['comment', 'file', 'task_done', 'reply'].includes(kind) && typeof about === 'string') file.when.about = about;
    });
}

/** Other fields to watch keep "from" and "to" only where one field is left to ask them of. */
export function chooseWatched(document: Document, pointer: string, names: string[]): Promise<void> {
    const [node] = split(pointer);
    const before = document.at(pointer);
    return document.edit((file) => {
        put(file, pointer, names.length ? names : undefined);
        if (JSON.stringify(before) === JSON.stringify(names)) return;
        put(file, `${node}/from`, undefined);
        put(file, `${node}/to`, undefined);
    });
}

/** What a condition looks at, as the key under which it is offered. */
export function subjectOf(document: Document, node: string): string {
    const total = document.at(`${node}/total`);
    if (typeof total === 'object' && total !== null && !Array.isArray(total)) return `:total:${String(total.relation ?? '')}`;
    const kind = textAt(document, `${node}/kind`).replace(/^not_(?=made_by$)/, '');
    return ['made_by', 'formula', 'named', 'happened'].includes(kind) ? `:${kind}` : textAt(document, `${node}/field`);
}

/** What a condition looks at: a field, a number of related records, the change itself, a formula, or a named condition. */
export function chooseField(document: Document, pointer: string, key: string, on: string): Promise<void> {
    const [node] = split(pointer);
    const before = comparedField(document, node, on);
    // What is chosen again stays as it is.
    if (key !== '' && subjectOf(document, node) === key) return Promise.resolve();
    return document.edit((file) => {
        if (key.startsWith(':')) {
            const [, kind = '', relation = ''] = key.split(':');
            const made: Record<string, JsonObject> = {
                total: { kind: 'over', total: { of: 'count', relation } },
                made_by: { kind: 'made_by' },
                formula: { kind: 'formula' },
                named: { kind: 'named' },
                happened: { kind: 'happened', event: 'reply' },
            };
            put(file, node, made[kind] ?? {});
            return;
        }
        const path = session.path(on, key)?.field;
        const kept = String(at(file, `${node}/kind`) ?? '');
        const own = !key.includes('.');
        const fitting = path ? operatorsFor(path, own) : [];
        const next: JsonObject = {
            kind: fitting.some((operator) => operator.kind === kept) ? kept : (fitting[0]?.kind ?? 'is'),
            field: key,
        };
        if (path && before?.name === path.name && at(file, `${node}/field`) === key) return;
        put(file, node, next);
    });
}

export function chooseOperator(document: Document, pointer: string, kind: string): Promise<void> {
    const [node] = split(pointer);
    return document.edit((file) => {
        const value = at(file, `${node}/value`);
        const values = at(file, `${node}/values`);
        const isSpan = typeof value === 'object' && value !== null && !Array.isArray(value) && !('kind' in value);
        // A team is no person: what was compared is no value of the other.
        const alike = isTeam(kind) === isTeam(String(at(file, pointer) ?? ''));
        const kept: Json[] = !alike ? [] : Array.isArray(values) ? values : value === undefined || value === null || isSpan ? [] : [value];
        put(file, pointer, kind);
        put(file, `${node}/value`, operand(kind) === 'one' ? kept[0] : operand(kind) === 'span' && isSpan ? value : undefined);
        put(file, `${node}/values`, operand(kind) === 'many' ? kept.filter((one) => typeof one !== 'object') : undefined);
    });
}

/** Another field to set starts with the value that comes to mind first: now for a moment, otherwise still open. */
export function chooseSetField(document: Document, pointer: string, name: string, on: string): Promise<void> {
    const [node] = split(pointer);
    const before = session.field(on, String(document.at(pointer) ?? ''));
    const after = session.field(on, name);
    return document.edit((file) => {
        put(file, pointer, name);
        if (!after || before?.name === name) return;
        const to: JsonObject = ['date', 'date_time'].includes(after.type)
            ? { kind: 'now' }
            : after.type === 'tick'
              ? { kind: 'value', value: true }
              : ['tags', 'choices'].includes(after.type)
                ? { kind: 'add_member' }
                : { kind: 'value' };
        put(file, `${node}/to`, to);
    });
}

/** The written form of a person expression for a key such as "owner", "manager:owner", "turn:Team" or a handle. */
export function personExpression(key: string): JsonObject {
    if (['owner', 'creator', 'doer'].includes(key)) return { kind: key };
    if (key.startsWith('manager:')) return { kind: 'manager', of: personExpression(key.slice(8)) };
    if (key.startsWith('turn:')) return { kind: 'in_turn', team: key.slice(5) };
    if (key.startsWith('least:')) return { kind: 'least_loaded', team: key.slice(6) };
    if (key.startsWith('field:')) return { kind: 'in_field', path: key.slice(6) };
    return { kind: 'named', handle: key };
}

/** What a new line of a kind begins with. */
export function newLine(kind: string): JsonObject {
    const task: JsonObject = { to: { kind: 'owner' }, title: '', due: { amount: 1, unit: 'day' } };
    const begun: Record<string, JsonObject> = {
        set_fields: { set: [{}] },
        give_task: task,
        give_tasks: { tasks: [task, structuredClone(task)] },
        send_message: { to: [], subject: '', body: '' },
        remind: { to: { kind: 'owner' }, text: '' },
        send_list: { subject: 'Your list', columns: [], days: 5, workingDays: true },
        escalate: {},
        create_record: { set: [] },
        assign: {},
        comment: { text: '' },
        follow: {},
        refuse: { message: '' },
    };
    return { kind, ...begun[kind] };
}

/** The value as the schema's rows have it, or the empty text. */
export function textAt(document: Document, pointer: string): string {
    const value = document.at(pointer);
    return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

export type Row = Shapes['RowShape'];
export type Word = Shapes['WordShape'];
