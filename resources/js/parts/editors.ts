import type { Shapes } from '../api/client';
import type { Document } from '../state/document.svelte';
import { at, put, split, type Json, type JsonObject } from '../state/pointer';
import { session } from '../state/session.svelte';
import { operand, operatorsFor } from './offers';

/* What choosing a word's new meaning does to the rule file. */

export function chooseTrigger(document: Document, kind: string): Promise<void> {
    return document.edit((file) => {
        const fields = at(file, '/when/fields');
        file.when = kind === 'changed' && Array.isArray(fields) ? { kind, fields } : { kind };
    });
}

/** Another field keeps the comparison where it fits, and its values only when the fields hold the same kind of thing. */
export function chooseField(document: Document, pointer: string, path: string): Promise<void> {
    const [node] = split(pointer);
    const before = session.path(document.type, String(document.at(pointer) ?? ''))?.field;
    const after = session.path(document.type, path)?.field;
    return document.edit((file) => {
        put(file, pointer, path);
        if (!after || before === after) return;
        const fitting = operatorsFor(after);
        const kind = String(at(file, `${node}/kind`) ?? '');
        if (!fitting.some((operator) => operator.kind === kind)) put(file, `${node}/kind`, fitting[0]?.kind ?? 'is');
        put(file, `${node}/value`, undefined);
        put(file, `${node}/values`, undefined);
    });
}

export function chooseOperator(document: Document, pointer: string, kind: string): Promise<void> {
    const [node] = split(pointer);
    return document.edit((file) => {
        const value = at(file, `${node}/value`);
        const values = at(file, `${node}/values`);
        const kept: Json[] = Array.isArray(values) ? values : value === undefined || value === null ? [] : [value];
        put(file, pointer, kind);
        put(file, `${node}/value`, operand(kind) === 'one' ? kept[0] : undefined);
        put(file, `${node}/values`, operand(kind) === 'many' ? kept : undefined);
    });
}

/** Another field to set starts with the value that comes to mind first: now for a moment, otherwise still open. */
export function chooseSetField(document: Document, pointer: string, name: string): Promise<void> {
    const [node] = split(pointer);
    const before = session.field(document.type, String(document.at(pointer) ?? ''));
    const after = session.field(document.type, name);
    return document.edit((file) => {
        put(file, pointer, name);
        if (!after || before?.name === name) return;
        const to: JsonObject = ['date', 'date_time'].includes(after.type)
            ? { kind: 'now' }
            : after.type === 'tick'
              ? { kind: 'value', value: true }
              : { kind: 'value' };
        put(file, `${node}/to`, to);
    });
}

/** The written form of a person expression for a key such as "owner", "owner's manager" or a handle. */
export function personExpression(key: string): JsonObject {
    if (key === 'owner' || key === 'creator') return { kind: key };
    if (key.startsWith('manager:')) return { kind: 'manager', of: personExpression(key.slice(8)) };
    return { kind: 'named', handle: key };
}

export function personKey(expression: Json | undefined): string {
    if (typeof expression !== 'object' || expression === null || Array.isArray(expression)) return '';
    if (expression.kind === 'manager') return `manager:${personKey(expression.of)}`;
    return expression.kind === 'named' ? String(expression.handle ?? '') : String(expression.kind ?? '');
}

export function newLine(kind: string): JsonObject {
    return kind === 'set_fields' ? { kind, set: [{}] } : { kind, to: { kind: 'owner' }, title: '', due: { amount: 1, unit: 'day' } };
}

/** The value as the schema's rows have it, or the empty text. */
export function textAt(document: Document, pointer: string): string {
    const value = document.at(pointer);
    return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

export type Row = Shapes['RowShape'];
export type Word = Shapes['WordShape'];
