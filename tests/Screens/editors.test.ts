import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import type { Shapes } from '../../resources/js/api/client';
import {
    chooseField,
    chooseOperator,
    chooseSetField,
    chooseTrigger,
    chooseWatched,
    newLine,
    personExpression,
} from '../../resources/js/parts/editors';
import { comparedField, fieldOptions, furtherSubjects, operatorsFor } from '../../resources/js/parts/offers';
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
        min: null,
        max: null,
        formula: null,
        ...more,
    };
}

function type(name: string, label: string, fields: Shapes['FieldShape'][]): Shapes['TypeShape'] {
    return {
        name,
        label,
        plural: `${label}s`,
        prefix: 'X',
        title: 'name',
        owner: 'owner',
        columns: [],
        fields,
        guards: [],
        stage: null,
        pieces: [],
    };
}

beforeEach(() => {
    session.schema = {
        types: [
            type('customer', 'Customer', [field('name', 'text'), field('plan', 'choice'), field('value', 'money')]),
            type('contact', 'Contact', [field('name', 'text'), field('customer', 'reference', { target: 'customer' })]),
            type('ticket', 'Ticket', [
                field('status', 'choice'),
                field('priority', 'choice'),
                field('due', 'date'),
                field('paid', 'tick'),
                field('contact', 'reference', { target: 'contact' }),
                field('customer', 'reference', { target: 'customer' }),
                field('tags', 'tags'),
                field('created_at', 'date_time', { system: true }),
            ]),
        ],
        people: type('person', 'Person', [field('name', 'text'), field('team', 'text'), field('manager', 'person')]),
        operators: [
            { kind: 'is', operand: 'one', labels: { choice: 'is', text: 'is', date: 'is', reference: 'is' }, given: true, ofChange: false },
            { kind: 'one_of', operand: 'many', labels: { choice: 'is one of', reference: 'is one of' }, given: false, ofChange: false },
            {
                kind: 'over',
                operand: 'one',
                labels: { date: 'is after', date_time: 'is after', number: 'is over' },
                given: true,
                ofChange: false,
            },
            { kind: 'in_next', operand: 'span', labels: { date: 'is in the next' }, given: false, ofChange: false },
            {
                kind: 'has_changed',
                operand: 'nothing',
                labels: { choice: 'has changed', date: 'has changed' },
                given: false,
                ofChange: true,
            },
            { kind: 'ticked', operand: 'nothing', labels: { tick: 'is ticked' }, given: false, ofChange: false },
            {
                kind: 'is_empty',
                operand: 'nothing',
                labels: { choice: 'is empty', text: 'is empty', date: 'is empty' },
                given: false,
                ofChange: false,
            },
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
        ['status', 'priority', 'contact.customer.plan', 'customer.plan'],
    );
});

test('operators are those that fit, with the words of the field', () => {
    assert.deepEqual(
        operatorsFor(session.field('ticket', 'due')!).map((operator) => operator.label),
        ['is', 'is after', 'is in the next', 'has changed', 'is empty'],
    );
    const far = operatorsFor(session.field('ticket', 'due')!, false).map((operator) => operator.label);
    assert.ok(!far.includes('has changed'), 'a change is only one of the record itself');
});

test('another field of the same sort keeps the comparison but not the value', async () => {
    const page = condition({ kind: 'one_of', field: 'status', values: ['open'] });
    await chooseField(page, '/onlyIf/of/0/field', 'contact.customer.plan', 'ticket');
    assert.deepEqual(first(page), { kind: 'one_of', field: 'contact.customer.plan' });
});

test('another field of another sort takes the first comparison that fits', async () => {
    const page = condition({ kind: 'one_of', field: 'status', values: ['open'] });
    await chooseField(page, '/onlyIf/of/0/field', 'paid', 'ticket');
    assert.deepEqual(first(page), { kind: 'ticked', field: 'paid' });
    await chooseField(page, '/onlyIf/of/0/field', 'due', 'ticket');
    assert.deepEqual(first(page), { kind: 'is', field: 'due' });
});

test('the same field again changes nothing', async () => {
    const page = condition({ kind: 'is', field: 'status', value: 'open' });
    await chooseField(page, '/onlyIf/of/0/field', 'status', 'ticket');
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
        ['tags', { kind: 'add_member' }],
        ['status', { kind: 'value' }],
    ] as const) {
        await chooseSetField(page, '/lines/0/set/0/field', name, 'ticket');
        assert.deepEqual(page.at('/lines/0/set/0'), { field: name, to });
    }
    await page.put('/lines/0/set/0/to', { kind: 'value', value: 'open' });
    await chooseSetField(page, '/lines/0/set/0/field', 'status', 'ticket');
    assert.deepEqual(page.at('/lines/0/set/0/to'), { kind: 'value', value: 'open' }, 'the same field keeps its value');
});

test('people go into the file', () => {
    assert.deepEqual(personExpression('manager:owner'), { kind: 'manager', of: { kind: 'owner' } });
    assert.deepEqual(personExpression('field:customer.owner'), { kind: 'in_field', path: 'customer.owner' });
    assert.deepEqual(personExpression('turn:Sales'), { kind: 'in_turn', team: 'Sales' });
    assert.deepEqual(personExpression('ines.okafor'), { kind: 'named', handle: 'ines.okafor' });
});

test('what is counted is offered for children, here and at what it refers to', async () => {
    assert.deepEqual(
        furtherSubjects('customer', true).map((option) => option.key),
        [':total:contact.customer', ':total:ticket.customer', ':made_by', ':formula', ':named'],
    );
    assert.ok(furtherSubjects('ticket', false).some((option) => option.key === ':total:customer>ticket.customer'));
    const page = condition({ kind: 'is', field: 'status', value: 'open' });
    await chooseField(page, '/onlyIf/of/0/field', ':total:customer>ticket.customer', 'ticket');
    assert.deepEqual(first(page), { kind: 'over', total: { of: 'count', relation: 'customer>ticket.customer' } });
    assert.equal(comparedField(page, '/onlyIf/of/0', 'ticket')?.type, 'number');
    await page.put('/onlyIf/of/0/total', { of: 'latest', relation: 'customer>ticket.customer', field: 'due' });
    assert.equal(comparedField(page, '/onlyIf/of/0', 'ticket')?.type, 'date');
});

test('a span is no value of another comparison', async () => {
    const page = condition({ kind: 'in_next', field: 'due', value: { amount: 7, unit: 'day' } });
    await chooseOperator(page, '/onlyIf/of/0/kind', 'over');
    assert.deepEqual(first(page), { kind: 'over', field: 'due' });
});

test('other watched fields drop the values asked of the one before', async () => {
    const page = open({ when: { kind: 'changed', fields: ['status'], from: 'open', to: 'closed' } });
    await chooseWatched(page, '/when/fields', ['status']);
    assert.equal(page.at('/when/to'), 'closed');
    await chooseWatched(page, '/when/fields', ['due']);
    assert.deepEqual(page.at('/when'), { kind: 'changed', fields: ['due'] });
});

test('a line knows whose fields it sets', () => {
    const page = open({
        lines: [
            { kind: 'set_fields', set: [{}] },
            { kind: 'set_fields', on: 'contact.customer', set: [{}] },
            { kind: 'create_record', type: 'contact', as: 'made', set: [{}] },
            { kind: 'set_fields', on: 'new:made', set: [{}] },
        ],
    });
    assert.deepEqual(
        [0, 1, 2, 3].map((index) => page.targetOf(`/lines/${index}/set/0/field`)),
        ['ticket', 'customer', 'contact', 'contact'],
    );
});

test('every new line is one that the server can read as unfinished', () => {
    for (const kind of ['set_fields', 'give_task', 'give_tasks', 'send_message', 'create_record', 'assign', 'comment', 'follow', 'refuse'])
        assert.equal(newLine(kind).kind, kind);
});
