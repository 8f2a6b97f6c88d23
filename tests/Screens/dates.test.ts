import assert from 'node:assert/strict';
import { test } from 'node:test';
import { dayInWords, readDay, readMoment, shifted } from '../../resources/js/state/dates';

/* Tuesday 24 November 2026 is today. */
const TODAY = '2026-11-24';
const read = (text: string, tag = 'en-GB') => readDay(text, TODAY, tag);

const said: [string, string | null][] = [
    ['today', '2026-11-24'],
    ['Tomorrow', '2026-11-25'],
    ['yesterday', '2026-11-23'],
    ['fri', '2026-11-27'],
    ['tue', '2026-12-01'],
    ['next mon', '2026-11-30'],
    ['next fri', '2026-12-04'],
    ['+3', '2026-11-27'],
    ['-1', '2026-11-23'],
    ['2w', '2026-12-08'],
    ['in 2 months', '2027-01-24'],
    ['+1y', '2027-11-24'],
    ['24', '2026-11-24'],
    ['3', '2026-12-03'],
    ['31', '2026-12-31'],
    ['24 nov', '2026-11-24'],
    ['3 Jan', '2027-01-03'],
    ['Dec 3rd', '2026-12-03'],
    ['30 sep 27', '2027-09-30'],
    ['24.11.', '2026-11-24'],
    ['1/2/2027', '2027-02-01'],
    ['2027-02-01', '2027-02-01'],
    ['31 feb', null],
    ['2026-13-01', null],
    ['soonish', null],
    ['1 2 3 4', null],
    ['', null],
];
for (const [text, day] of said) test(`“${text}” is ${day ?? 'no day'}`, () => assert.equal(read(text), day));

test('the month comes first where people write it so, and names are of the language', () => {
    assert.equal(read('2/1/2027', 'en-US'), '2027-02-01');
    assert.equal(read('freitag', 'de-DE'), '2026-11-27');
    assert.equal(read('3. Dez', 'de-DE'), '2026-12-03');
    assert.equal(read('morgen', 'de-DE'), '2026-11-25');
    assert.equal(read('nächsten mo', 'de-DE'), '2026-11-30');
});

test('a moment has a time behind the day, or the time that was there', () => {
    const moment = (text: string) => readMoment(text, TODAY, 'en-GB', '08:15');
    assert.equal(moment('fri 14:30'), '2026-11-27T14:30');
    assert.equal(moment('tomorrow 9am'), '2026-11-25T09:00');
    assert.equal(moment('tomorrow at 12 pm'), '2026-11-25T12:00');
    assert.equal(moment('11:00'), '2026-11-24T11:00');
    assert.equal(moment('24 Nov 2026'), '2026-11-24T08:15');
    assert.equal(moment('fri 25:00'), null);
    assert.equal(moment('whenever 9:00'), null);
});

test('what a field shows of any day, it reads as that day again, whatever the language', () => {
    for (let days = -800; days < 800; days += 13) {
        const day = shifted(TODAY, days);
        for (const tag of ['en-GB', 'en-US', 'de-DE', 'fr-FR']) {
            const shown = dayInWords(day, tag);
            assert.equal(readDay(shown, TODAY, tag), day, `${tag}: ${shown}`);
            assert.equal(readMoment(`${shown} 07:45`, TODAY, tag), `${day}T07:45`, `${tag}: ${shown}`);
        }
    }
});
