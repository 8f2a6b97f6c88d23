import assert from 'node:assert/strict';
import { test } from 'node:test';
import { paperRows } from '../../resources/js/screens/rehearsal/paper.ts';

const entry = (number: number, at: string, kind = 'line') =>
    ({ entry: { number, at, kind }, own: true, whatIf: kind === 'reply', messages: [], tasks: [] }) as never;
const line = (due: string | null, said: string, entry: number | null = null) => ({ due, said, entry, ruleName: null, own: true }) as never;
const played = (entries: never[], struck: never[] = [], left: never[] = []) => ({ entries, struck, left }) as never;
const outline = (of: never) => paperRows(of).map((row) => row.line?.said ?? row.entry?.entry.kind);

test('what was struck out stands where it would have come', () => {
    const rows = played(
        [entry(1, '2026-11-24T09:00:00Z', 'fired'), entry(2, '2026-11-27T09:00:00Z', 'reply'), entry(3, '2026-11-27T09:00:00Z', 'struck')],
        [line('2026-12-02T09:00:00Z', 'Close it', 3), line('2026-11-29T09:00:00Z', 'Ring', 3)],
    );
    assert.deepEqual(outline(rows), ['fired', 'reply', 'Ring', 'Close it']);
});

test('what was struck out before it had a date stands as its entry', () => {
    const rows = played([entry(1, '2026-11-24T09:00:00Z', 'fired'), entry(2, '2026-11-25T09:00:00Z', 'struck')], [line(null, 'Look', 2)]);
    assert.deepEqual(outline(rows), ['fired', 'struck']);
});

test('what still waits comes last, and what has no date behind it', () => {
    const rows = played([entry(1, '2026-11-24T09:00:00Z', 'fired')], [], [line(null, 'No date'), line('2027-02-01T09:00:00Z', 'Later')]);
    assert.deepEqual(outline(rows), ['fired', 'Later', 'No date']);
});

test('things of one moment keep their order', () => {
    const rows = played([
        entry(1, '2026-11-24T09:00:00Z', 'changed'),
        entry(2, '2026-11-24T09:00:00Z', 'fired'),
        entry(3, '2026-11-24T09:00:00Z', 'line'),
    ]);
    assert.deepEqual(outline(rows), ['changed', 'fired', 'line']);
});
