import assert from 'node:assert/strict';
import { test } from 'node:test';
import { completions, continued } from '../../resources/js/parts/typing.ts';

test('what begins with what was typed is offered, with or without its article', () => {
    const offered = ['the owner', 'the owner’s manager', 'Ines Okafor', ','];
    assert.deepEqual(completions('remind ', 7, offered), ['the owner', 'the owner’s manager', 'Ines Okafor']);
    assert.deepEqual(completions('remind own', 7, offered), ['the owner', 'the owner’s manager']);
    assert.deepEqual(completions("remind the owner's", 7, offered), ['the owner’s manager']);
    assert.deepEqual(completions('remind xyz', 7, offered), []);
});

test('what was chosen takes the place of what was typed', () => {
    assert.equal(continued('remind own', 7, 'the owner’s manager'), 'remind the owner’s manager ');
    assert.equal(continued('remind the owner', 16, '’s manager'), 'remind the owner’s manager ');
    assert.equal(continued('remind the owner ', 17, '“…”'), 'remind the owner “');
    assert.equal(continued('', 0, 'Remind'), 'Remind ');
});
