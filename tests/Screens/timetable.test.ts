import assert from 'node:assert/strict';
import { test } from 'node:test';
import { rruleOf, timetableOf } from '../../resources/js/parts/editors/timetable';

test('a timetable comes out as the rule it was read from', () => {
    for (const rule of [
        'FREQ=DAILY',
        'FREQ=DAILY;INTERVAL=3',
        'FREQ=WEEKLY;BYDAY=MO,WE,FR',
        'FREQ=WEEKLY;INTERVAL=2;BYDAY=TH',
        'FREQ=MONTHLY;BYMONTHDAY=15',
        'FREQ=MONTHLY;BYMONTHDAY=-1',
        'FREQ=MONTHLY;INTERVAL=3;BYDAY=1MO',
        'FREQ=MONTHLY;BYDAY=-1FR',
        'FREQ=YEARLY',
        'FREQ=YEARLY;BYMONTH=3',
        'FREQ=WEEKLY;BYDAY=MO;UNTIL=20271231',
        'FREQ=YEARLY;BYMONTHDAY=24;BYMONTH=12',
        'FREQ=MONTHLY;BYMONTHDAY=31;COUNT=4',
        'FREQ=DAILY;BYDAY=MO,TU;BYMONTH=6',
    ])
        assert.equal(rruleOf(timetableOf(rule)), rule);
});

test('another unit asks for the day that goes with it', () => {
    const table = { ...timetableOf('FREQ=DAILY'), freq: 'WEEKLY' };
    assert.equal(rruleOf(table), 'FREQ=WEEKLY;BYDAY=MO');
    assert.equal(rruleOf({ ...table, days: [] }), 'FREQ=WEEKLY;BYDAY=MO');
    assert.equal(rruleOf({ ...table, freq: 'MONTHLY' }), 'FREQ=MONTHLY;BYMONTHDAY=1');
});
