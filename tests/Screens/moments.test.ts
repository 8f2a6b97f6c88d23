import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
    ahead,
    day,
    daysUntil,
    dueDate,
    fromLocalField,
    initials,
    localDay,
    longMoment,
    moment,
    toLocalField,
} from '../../resources/js/state/moments';
import { clock } from '../../resources/js/state/session.svelte';
import { counted } from '../../resources/js/state/words';

clock.set('2026-11-24T08:40:00Z', 'Europe/Berlin');

test('moments are told on the company’s clocks', () => {
    assert.equal(longMoment('2026-11-24T08:40:00Z'), 'Tue 24 Nov 2026 09:40');
    assert.equal(moment('2026-06-30T22:30:00Z'), '1 Jul 00:30');
    assert.equal(moment('2025-12-31T22:59:00Z'), '31 Dec 2025 23:59');
    assert.equal(localDay('2026-11-24T23:30:00Z'), '2026-11-25');
    assert.equal(day('2026-09-05'), '5 Sep');
    assert.equal(day('2027-01-21'), '21 Jan 2027');
});

test('due dates are told from today', () => {
    assert.deepEqual(
        ['2026-11-22', '2026-11-24', '2026-11-25', '2026-12-01', '2025-11-01'].map((date) => dueDate(date).text),
        ['2 d late', 'today', 'tomorrow', '1 Dec', '1 Nov 2025'],
    );
    assert.equal(daysUntil('2027-11-24'), 365);
    assert.deepEqual(['2026-11-24T08:40:20Z', '2026-11-24T09:10:00Z', '2026-11-24T12:40:00Z', '2026-11-27T08:40:00Z'].map(ahead), [
        'now',
        'in 30 min',
        'in 4 h',
        'in 3 days',
    ]);
});

test('a date and time field shows and names the company’s time, in every hour of two clock changes', () => {
    for (const zone of ['Europe/Berlin', 'Europe/Lisbon', 'America/New_York', 'Asia/Kathmandu', 'Australia/Lord_Howe', 'UTC']) {
        clock.set('2026-11-24T08:40:00Z', zone);
        for (const start of ['2026-03-07T00:00:00Z', '2026-03-28T00:00:00Z', '2026-10-03T00:00:00Z', '2026-10-24T00:00:00Z']) {
            for (let hour = 0; hour < 60; hour++) {
                const instant = new Date(Date.parse(start) + hour * 3_600_000).toISOString().slice(0, 19) + 'Z';
                const shown = toLocalField(instant);
                const named = fromLocalField(shown);
                // An hour that comes twice names the first of the two; what it shows is always the same.
                assert.equal(toLocalField(named), shown, `${instant} in ${zone}`);
                assert.ok(Date.parse(named) <= Date.parse(instant), `${instant} in ${zone} named ${named}`);
            }
        }
    }
    clock.set('2026-11-24T08:40:00Z', 'Europe/Berlin');
    assert.equal(fromLocalField('2026-11-24T09:40'), '2026-11-24T08:40:00Z');
});

test('words around numbers and names', () => {
    assert.deepEqual(
        [counted(1, ['# task', '# tasks']), counted(2053, ['# ticket', '# tickets']), counted(0, ['# entry', '# entries'])],
        ['1 task', '2,053 tickets', '0 entries'],
    );
    assert.deepEqual([initials('Ines Okafor'), initials('Bo'), initials('')], ['IO', 'B', '']);
});
