import assert from 'node:assert/strict';
import { test } from 'node:test';
import { rungFile, rungOf } from '../../resources/js/screens/library/rungs';
import type { JsonObject } from '../../resources/js/state/pointer';

/** All that a rung can do, in the order it is written. */
const known = ['tell', 'raise', 'reassign'];

test('a rung that is opened and kept is what it was', () => {
    const rungs: JsonObject[] = [
        { to: { kind: 'owner' }, do: ['tell'] },
        {
            after: { amount: 1, unit: 'working_day', time: '09:30', roll: 'next', clock: 'owner' },
            to: { kind: 'in_field', path: 'customer.owner' },
            do: ['raise', 'tell'],
        },
        {
            after: { amount: 0, unit: 'day', time: '08:00' },
            to: { kind: 'manager', of: { kind: 'in_field', path: 'owner' } },
            do: ['tell'],
        },
        { after: { amount: 0, unit: 'day' }, to: { kind: 'named', handle: 'ines.okafor' }, do: ['reassign'] },
        {
            after: { amount: 2, unit: 'week' },
            to: { kind: 'least_loaded', team: 'Service Quayside' },
            do: ['reassign', 'tell'],
            note: 'kept',
        },
    ];
    for (const rung of rungs) assert.deepEqual(rungFile(rungOf(rung), known), rung);
});

test('what is changed is changed and nothing else', () => {
    const rung = rungOf({ after: { amount: 1, unit: 'day', time: '09:30' }, to: { kind: 'in_field', path: 'owner' }, do: ['tell'] });
    rung.to = JSON.stringify({ kind: 'manager', of: { kind: 'owner' } });
    assert.deepEqual(rungFile(rung, known), {
        after: { amount: 1, unit: 'day', time: '09:30' },
        to: { kind: 'manager', of: { kind: 'owner' } },
        do: ['tell'],
    });
    rung.acts = ['raise', 'tell'];
    assert.deepEqual(rungFile(rung, known).do, ['tell', 'raise']);
    rung.due = { amount: 0, unit: 'day' };
    assert.equal(rungFile(rung, known).after, undefined);
});
