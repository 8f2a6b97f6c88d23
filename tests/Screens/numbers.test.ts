import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { shownNumber, typedNumber } from '../../resources/js/state/numbers';

// The server reads them by the same cases.
const cases = JSON.parse(readFileSync('tests/Core/numbers.json', 'utf8')) as [string, string, string][];

test('a number is read as its language writes it', () => {
    for (const [typed, english, german] of cases)
        assert.deepEqual([typedNumber(typed, 'en'), typedNumber(typed, 'de')], [english, german], typed);
});

test('what is shown is read as what is kept', () => {
    for (const kept of ['1.234', '0.5', '-12.50', '1000', '']) {
        assert.equal(typedNumber(shownNumber(kept, 'de'), 'de'), kept);
        assert.equal(typedNumber(shownNumber(kept, 'en'), 'en'), kept);
    }
    assert.equal(shownNumber('12.50', 'de'), '12,50');
});
