import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import type { Shapes } from '../../resources/js/api/client';
import { isThere, leaveOut, optionsOf, take, type Offer } from '../../resources/js/parts/editors/choices';
import { chosenOption, filled, filledIn, sidesOf, wayOf } from '../../resources/js/parts/editors/form';
import { fieldOptions } from '../../resources/js/parts/offers';
import { Document } from '../../resources/js/state/document.svelte';
import type { JsonObject } from '../../resources/js/state/pointer';
import { session } from '../../resources/js/state/session.svelte';

type Field = Shapes['FormFieldResource'];

const offer = (label: string, value: unknown, more: Partial<Offer> = {}): Offer => ({
    label,
    value,
    group: '',
    hint: '',
    merge: false,
    at: null,
    isChosen: null,
    also: {},
    ...more,
});
const field = (sort: Field['sort'], key: string, more: Partial<Field> = {}): Field => ({
    sort,
    key,
    label: key,
    behind: '',
    starts: null,
    isNeeded: false,
    least: null,
    most: null,
    options: [],
    sides: null,
    sidesWith: null,
    hasTime: false,
    hasClock: false,
    units: [],
    ...more,
});
const way = (given: unknown, fields: Field[], keeps = false): Shapes['WayResource'] => ({ label: '', with: given, fields, keeps });
const empty = { rows: [], problems: [], aloud: '' };
const open = (file: JsonObject) => new Document<object>('ticket', file, empty, { keep: () => Promise.resolve(empty), failed: assert.fail });

test('an offer goes where it says, with what belongs to it, and as one step back', async () => {
    const page = open({ when: { kind: 'changed', fields: ['due'] } });
    await take(page, '/when', offer('Quiet', { kind: 'quiet' }, { also: { '/fires': { kind: 'every_time' } } }));
    assert.deepEqual(page.file, { when: { kind: 'quiet' }, fires: { kind: 'every_time' } });
    assert.equal(page.undoable, 1);
    await take(page, '/when/of', offer('A reply', { kind: 'quiet', of: 'reply' }, { at: '/when' }));
    assert.deepEqual(page.at('/when'), { kind: 'quiet', of: 'reply' });
    await take(page, '/when', offer('For long', { amount: 3 }, { merge: true }));
    assert.deepEqual(page.at('/when'), { kind: 'quiet', of: 'reply', amount: 3 });
    await take(page, '/when', offer('None', null));
    assert.equal(page.at('/when'), undefined, 'nothing takes the place of what stood there');
});

test('what is chosen again changes nothing', async () => {
    const page = open({ fires: { kind: 'once_in_period', period: { amount: 2, unit: 'day' } } });
    await take(page, '/fires', offer('At most once in …', { kind: 'once_in_period' }, { isChosen: true }));
    assert.equal(page.undoable, 0);
    assert.equal(isThere(page, '/fires', offer('Other', { kind: 'every_time' })), false);
    assert.equal(isThere(page, '/fires/period/amount', offer('2', 2)), true);
    // What says more than its offer is still of the sort it began with.
    const total = open({ to: { on: 'visit', of: 'sum', field: 'cost' } });
    assert.equal(isThere(total, '/to', offer('Visits', { on: 'visit' })), true);
    assert.equal(isThere(total, '/to', offer('Tickets', { on: 'ticket' })), false);
});

test('what is left out takes along what says nothing without it', () => {
    const file: JsonObject = { lines: [{ kind: 'x', at: { kind: 'after' }, tooLate: { amount: 1 }, due: { amount: 1 } }] };
    leaveOut(file, '/lines/0/at', ['tooLate']);
    assert.deepEqual(file, { lines: [{ kind: 'x', due: { amount: 1 } }] });
    leaveOut(file, '/lines/0/due/amount');
    assert.deepEqual(file, { lines: [{ kind: 'x' }] }, 'an object that is left empty goes');
    assert.deepEqual(optionsOf([offer('One', 1, { group: 'Some' })]), [{ key: ':0', label: 'One', group: 'Some', hint: undefined }]);
});

test('a form opens on the way that what stands there was filled in', () => {
    const ways = [
        way(null, []),
        way({ kind: 'after' }, [field('time', '', { starts: { amount: 2, unit: 'day' } })]),
        way({ kind: 'at' }, [field('clock', 'time', { starts: '09:00', isNeeded: true }), field('tick', 'workingDays')]),
    ];
    assert.equal(wayOf(ways, null), 0);
    assert.equal(wayOf(ways, { kind: 'at', time: '08:00' }), 2);
    assert.equal(wayOf(ways, { kind: 'unheard of' }), 0);
    const given = { kind: 'after', amount: 5, unit: 'week' };
    assert.deepEqual(filledIn(ways, given, 1), [{}, { '': { amount: 5, unit: 'week' } }, { time: '09:00', workingDays: false }]);
    assert.deepEqual(filledIn(ways, null, 0)[1], { '': { amount: 2, unit: 'day' } });
});

test('a form says only what was filled in, and keeps what is none of its own', () => {
    const sides = field('time', '', { sides: ['after', 'before'], sidesWith: 'from' });
    const from = field('choice', 'from', { options: [offer('Due', 'due'), offer('now', null)] });
    const one = way({ kind: 'after' }, [sides, from, field('number', 'times'), field('tick', 'loud')], true);
    const row = { '': { amount: -3, unit: 'day' }, from: null, times: '4', loud: false };
    const given = { kind: 'before', amount: 1, unit: 'hour', from: 'due', loud: true, note: 'kept' };
    assert.deepEqual(filled(one, row, given), { kind: 'after', note: 'kept', amount: 3, unit: 'day', times: 4 });
    assert.equal(sidesOf(sides, row), null, 'without a date there is no before');
    assert.deepEqual(sidesOf(sides, { ...row, from: 'due' }), ['after', 'before']);
    assert.deepEqual(filled(one, { ...row, from: 'due' }, null), { kind: 'after', amount: -3, unit: 'day', from: 'due', times: 4 });
    assert.equal(chosenOption(from, 'due')?.label, 'Due');
    const period = way({}, [field('time', 'period')]);
    assert.deepEqual(filled(period, { period: { amount: 2, unit: 'day' } }, { again: 1 }), { period: { amount: 2, unit: 'day' } });
});

test('what is filled in and read again is the same', () => {
    const one = way({ kind: 'x' }, [
        field('time', '', { starts: { amount: 1, unit: 'day' } }),
        field('choice', 'of'),
        field('number', 'most'),
        field('tick', 'loud'),
    ]);
    for (let seed = 0; seed < 200; seed++) {
        const given: JsonObject = { kind: 'x', amount: (seed % 7) + 1, unit: ['day', 'hour', 'working_day'][seed % 3]! };
        if (seed % 2) given.of = 'a';
        if (seed % 5) given.most = seed;
        if (seed % 3) given.loud = true;
        assert.deepEqual(filled(one, filledIn([one], given, 0)[0]!, given), given, `seed ${seed}`);
    }
});

const type = (name: string, label: string, fields: [string, Shapes['FieldResource']['type'], string?][]): Shapes['TypeResource'] => ({
    ...{ name, label, plural: `${label}s`, prefix: 'X', title: 'name', owner: 'owner', columns: [], guards: [], stage: null, pieces: [] },
    fields: fields.map(([its, sort, target]) => ({
        ...{ name: its, label: its[0]!.toUpperCase() + its.slice(1), type: sort, required: false, system: false, choices: [] },
        ...{ target: target ?? null, scale: 2, maxLength: 190, currency: null, min: null, max: null, formula: null },
    })),
});

beforeEach(() => {
    session.schema = {
        ...({ lines: [], units: [], people: type('person', 'Person', [['name', 'text']]) } as unknown as NonNullable<
            typeof session.schema
        >),
        types: [
            type('customer', 'Customer', [
                ['name', 'text'],
                ['plan', 'choice'],
            ]),
            type('contact', 'Contact', [
                ['name', 'text'],
                ['customer', 'reference', 'customer'],
            ]),
            type('ticket', 'Ticket', [
                ['status', 'choice'],
                ['contact', 'reference', 'contact'],
                ['customer', 'reference', 'customer'],
            ]),
        ],
    };
});

test('fields are offered over references, two steps deep, each with its way', () => {
    const labels = fieldOptions('ticket').map((option) => option.label);
    assert.ok(labels.includes('Contact › Customer › Plan'));
    assert.ok(labels.includes('Contact › Name'));
    assert.deepEqual(
        fieldOptions('ticket', (one) => one.type === 'choice').map((option) => option.key),
        ['status', 'contact.customer.plan', 'customer.plan'],
    );
});
