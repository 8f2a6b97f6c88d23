import assert from 'node:assert/strict';
import { test } from 'node:test';
import { broughtBy } from '../../resources/js/parts/brings';
import type { JsonObject } from '../../resources/js/state/pointer';

const at = { kind: 'signed_off', line: '…', status: 'over' };
const ASK = {
    kind: 'sign_off',
    label: 'Ask',
    begins: {},
    brings: [
        { kind: 'if', at },
        { kind: 'or_if', called: '…' },
    ],
};
const shape = (lines: JsonObject[]) => lines.map((line) => `${String(line.kind)}${line.inner ? ' within' : ''}`);

test('a line that brings others along has a name of its own, by which they wait for it', () => {
    const lines = broughtBy([{ kind: 'note', key: 'sign_off' }, { kind: 'sign_off' }], 1, ASK, 0);
    assert.deepEqual(shape(lines), ['note', 'sign_off', 'if', 'or_if']);
    assert.equal(lines[1]!.key, 'sign_off_2');
    assert.deepEqual(lines[2]!.at, { ...at, line: 'sign_off_2' });
    assert.equal(lines[3]!.called, 'sign_off_2');
    assert.equal(broughtBy([{ kind: 'sign_off', key: 'discount' }], 0, ASK, 0)[0]!.key, 'discount');
});

test('what stood behind it stays outside of its cases, which stand in another case once', () => {
    const lines = [{ kind: 'sign_off' }, { kind: 'note' }];
    assert.deepEqual(shape(broughtBy(lines, 0, ASK, 0)), ['sign_off', 'if', 'or_if', 'in_all_cases', 'note']);
    assert.deepEqual(shape(broughtBy(lines, 0, ASK, 1)), ['sign_off', 'if within', 'or_if within', 'in_all_cases within', 'note']);
    assert.deepEqual(broughtBy(lines, 0, ASK, 2), lines);
    const before = [{ kind: 'sign_off' }, { kind: 'otherwise' }];
    assert.deepEqual(shape(broughtBy(before, 0, ASK, 1)), ['sign_off', 'if within', 'or_if within', 'otherwise']);
});
