import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import type { Shapes } from '../../resources/js/api/client';
import {
    chooseField,
    chooseOperator,
    chooseSetField,
    chooseTrigger,
    newLine,
    personExpression,
    personKey,
} from '../../resources/js/parts/editors';
import { fieldOptions, operatorsFor } from '../../resources/js/parts/offers';
import { Document } from '../../resources/js/state/document.svelte';
import type { JsonObject } from '../../resources/js/state/pointer';
import { session } from '../../resources/js/state/session.svelte';

function field(name: string, type: Shapes['FieldShape']['type'], more: Partial<Shapes['FieldShape']> = {}): Shapes['FieldShape'] {
    return {
        name,
        label: name[0]!.toUpperCase() + name.slice(1),
        type,
        required: false,
        system: false,
        choices: [],
        target: null,
        scale: 2,
        maxLength: 190,
        currency: null,
        ...more,
    };
}

function type(name: string, label: string, fields: Shapes['FieldShape'][]): Shapes['TypeShape'] {
    return { name, label, plural: `${label}s`, prefix: 'X', title: 'name', owner: 'owner', columns: [], fields, guards: [] };
}

beforeEach(() => {
    session.schema = {
        types: [
            type('customer', 'Customer', [field('name', 'text'), field('plan', 'choice')]),
            type('contact', 'Contact', [field('name', 'text'), field('customer', 'reference', { target: 'customer' })]),
            type('ticket', 'Ticket', [
                field('status', 'choice'),
                field('priority', 'choice'),
                field('due', 'date'),
                field('paid', 'tick'),
                field('contact', 'reference', { target: 'contact' }),
                field('created_at', 'date_time', { system: true }),
            ]),
        ],
        operators: [
            { kind: 'is', operand: 'one', labels: { choice: 'is', text: 'is', date: 'is', reference: 'is' } },
            { kind: 'one_of', operand: 'many', labels: { choice: 'is one of', reference: 'is one of' } },
            { kind: 'over', operand: 'one', labels: { date: 'is after', date_time: 'is after' } },
            { kind: 'ticked', operand: 'nothing', labels: { tick: 'is ticked' } },
            { kind: 'is_empty', operand: 'nothing', labels: { choice: 'is empty', text: 'is empty', date: 'is empty' } },
        ],
        triggers: [],
        groups: [],
        lines: [],
        units: [],
    };
});

const open = (file: JsonObject) =>
    new Document(
        'ticket',
        file,
        { rows: [], problems: [], aloud: '' },
        () => Promise.resolve({ rows: [], problems: [], aloud: '' }),
        assert.fail,
    );
const condition = (node: JsonObject) => open({ onlyIf: { kind: 'all', of: [node] } });
const first = (page: Document) => page.at('/onlyIf/of/0');

test('fields are offered over references, two steps deep, each with its way', () => {
    const labels = fieldOptions('ticket').map((option) => option.label);
    assert.ok(labels.includes('Contact › Customer › Plan'));
    assert.ok(labels.includes('Contact › Name'));
    assert.deepEqual(
        fieldOptions('ticket', (one) => one.type === 'choice').map((option) => option.key),
        ['status', 'priority', 'contact.customer.plan'],
    );
});

test('operators are those that fit, with the words of the field', () => {
    assert.deepEqual(
        operatorsFor(session.field('ticket', 'due')!).map((operator) => operator.label),
        ['is', 'is after', 'is empty'],
    );
});

test('another field of the same sort keeps the comparison but not the value', async () => {
    const page = condition({ kind: 'one_of', field: 'status', values: ['open'] });
    await chooseField(page, '/onlyIf/of/0/field', 'contact.customer.plan');
    assert.deepEqual(first(page), { kind: 'one_of', field: 'contact.customer.plan' });
});

test('another field of another sort takes the first comparison that fits', async () => {
    const page = condition({ kind: 'one_of', field: 'status', values: ['open'] });
    await chooseField(page, '/onlyIf/of/0/field', 'paid');
    assert.deepEqual(first(page), { kind: 'ticked', field: 'paid' });
    await chooseField(page, '/onlyIf/of/0/field', 'due');
    assert.deepEqual(first(page), { kind: 'is', field: 'due' });
});

test('the same field again changes nothing', async () => {
    const page = condition({ kind: 'is', field: 'status', value: 'open' });
    await chooseField(page, '/onlyIf/of/0/field', 'status');
    assert.deepEqual(first(page), { kind: 'is', field: 'status', value: 'open' });
    assert.equal(page.undoable, 0);
});

test('values follow the comparison: one becomes a list of one, a list its first, none goes', async () => {
    const page = condition({ kind: 'is', field: 'status', value: 'open' });
    await chooseOperator(page, '/onlyIf/of/0/kind', 'one_of');
    assert.deepEqual(first(page), { kind: 'one_of', field: 'status', values: ['open'] });
    await page.put('/onlyIf/of/0/values', ['closed', 'open']);
    await chooseOperator(page, '/onlyIf/of/0/kind', 'is');
    assert.deepEqual(first(page), { kind: 'is', field: 'status', value: 'closed' });
    await chooseOperator(page, '/onlyIf/of/0/kind', 'is_empty');
    assert.deepEqual(first(page), { kind: 'is_empty', field: 'status' });
});

test('watched fields survive a look at another trigger only where they mean something', async () => {
    const page = open({ when: { kind: 'changed', fields: ['due'] } });
    await chooseTrigger(page, 'created');
    assert.deepEqual(page.at('/when'), { kind: 'created' });
    await chooseTrigger(page, 'changed');
    assert.deepEqual(page.at('/when'), { kind: 'changed' });
});

test('a field to set starts with what comes to mind first', async () => {
    const page = open({ lines: [newLine('set_fields')] });
    for (const [name, to] of [
        ['due', { kind: 'now' }],
        ['paid', { kind: 'value', value: true }],
        ['status', { kind: 'value' }],
    ] as const) {
        await chooseSetField(page, '/lines/0/set/0/field', name);
        assert.deepEqual(page.at('/lines/0/set/0'), { field: name, to });
    }
    await page.put('/lines/0/set/0/to', { kind: 'value', value: 'open' });
    await chooseSetField(page, '/lines/0/set/0/field', 'status');
    assert.deepEqual(page.at('/lines/0/set/0/to'), { kind: 'value', value: 'open' }, 'the same field keeps its value');
});

test('people go into the file and back', () => {
    for (const key of ['owner', 'creator', 'manager:owner', 'manager:manager:owner', 'ines.okafor', 'manager:ines.okafor'])
        assert.equal(personKey(personExpression(key)), key);
    assert.deepEqual(personExpression('manager:owner'), { kind: 'manager', of: { kind: 'owner' } });
    for (const nobody of [undefined, null, 'x', [], {}]) assert.equal(personKey(nobody), '');
});
