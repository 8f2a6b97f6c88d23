import assert from 'node:assert/strict';
import { mock, test } from 'node:test';
import { toasts } from '../../resources/js/state/toasts.svelte';

const texts = () => toasts.shown.map((toast) => toast.text);

test('a notice goes by itself, a complaint and an offer to undo stay longer', () => {
    mock.timers.enable({ apis: ['setTimeout'] });
    let undone = 0;
    toasts.tell('Kept.');
    toasts.complain('It could not be kept.');
    toasts.tell('Deleted.', { label: 'Undo', run: () => undone++ });
    assert.deepEqual(texts(), ['Kept.', 'It could not be kept.', 'Deleted.']);
    assert.deepEqual(
        toasts.shown.map((toast) => toast.bad),
        [false, true, false],
    );
    mock.timers.tick(5000);
    assert.deepEqual(texts(), ['It could not be kept.', 'Deleted.']);
    toasts.shown[1]!.action!.run();
    assert.equal(undone, 1);
    mock.timers.tick(4000);
    assert.deepEqual(texts(), []);
    mock.timers.reset();
});

test('at most three are shown, and any can be taken away', () => {
    mock.timers.enable({ apis: ['setTimeout'] });
    for (const text of ['one', 'two', 'three', 'four']) toasts.tell(text);
    assert.deepEqual(texts(), ['two', 'three', 'four']);
    toasts.remove(toasts.shown[1]!.id);
    assert.deepEqual(texts(), ['two', 'four']);
    toasts.remove(-1);
    assert.deepEqual(texts(), ['two', 'four']);
    mock.timers.tick(9000);
    mock.timers.reset();
});
