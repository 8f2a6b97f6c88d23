import assert from 'node:assert/strict';
import { test } from 'node:test';
import { mayChangeWaiting } from '../../resources/js/state/waiting.ts';

test('what waits is asked for after changes, and not while somebody types', () => {
    for (const path of ['tasks', 'tasks/7', 'sign-offs/answers', 'slips/3/withdraw', 'records/ticket', 'records/ticket/7', 'rules/4/run'])
        assert.ok(mayChangeWaiting(`/api/${path}`), path);
    for (const path of [
        'text/line',
        'records/ticket/filter',
        'records/ticket/filter/text',
        'rules/4/draft',
        'remarks',
        'rehearse',
        'views',
    ])
        assert.ok(!mayChangeWaiting(`/api/${path}`), path);
});
