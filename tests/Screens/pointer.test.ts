import assert from 'node:assert/strict';
import { test } from 'node:test';
import { at, put, split, type JsonObject } from '../../resources/js/state/pointer';

test('a pointer finds what stands there, and nothing where nothing does', () => {
    const file: JsonObject = { lines: [{ set: [{ field: 'due' }] }], 'a/b': { '~': 1 } };
    assert.equal(at(file, '/lines/0/set/0/field'), 'due');
    assert.equal(at(file, '/a~1b/~0'), 1);
    assert.deepEqual(at(file, ''), file);
    for (const nowhere of ['/lines/1', '/lines/0/set/0/field/deeper', '/nope/0', '/lines/x'])
        assert.equal(at(file, nowhere), undefined, nowhere);
});

test('putting makes the way there, lists for numbers and objects for names', () => {
    const file: JsonObject = {};
    put(file, '/onlyIf/of/0/kind', 'is');
    put(file, '/onlyIf/of/1/of/0/field', 'due');
    assert.deepEqual(file, { onlyIf: { of: [{ kind: 'is' }, { of: [{ field: 'due' }] }] } });
});

test('putting nothing removes: an item closes the gap, a member goes', () => {
    const file: JsonObject = { lines: ['a', 'b', 'c'], name: 'x' };
    put(file, '/lines/1', undefined);
    put(file, '/name', undefined);
    assert.deepEqual(file, { lines: ['a', 'c'] });
    put(file, '', 'ignored');
    assert.deepEqual(file, { lines: ['a', 'c'] });
});

test('what is put is found, for random places', () => {
    let seed = 7;
    const random = (below: number) => (seed = (seed * 48271) % 2147483647) % below;
    for (let count = 0; count < 500; count++) {
        const file: JsonObject = { a: [1, { b: [] }], c: { d: null } };
        const pointer = '/' + Array.from({ length: 1 + random(4) }, () => ['x', 'y~1z', 'w'][random(3)]).join('/');
        put(file, pointer, count);
        assert.equal(at(file, pointer), count, pointer);
        const [parent, last] = split(pointer);
        assert.equal(`${parent}/${last}`, pointer);
        put(file, pointer, undefined);
        assert.equal(at(file, pointer), undefined);
        assert.deepEqual(file.a, [1, { b: [] }], 'the rest is as it was');
    }
});
