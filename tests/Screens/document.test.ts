import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Document } from '../../resources/js/state/document.svelte';
import type { JsonObject } from '../../resources/js/state/pointer';
import { UnsavedDraft } from '../../resources/js/state/unsaved';

const reading = (aloud: string) => ({ rows: [], problems: [], aloud });

/** A server that answers when it is told to, and remembers what it was sent. */
function slowServer() {
    const sent: JsonObject[] = [];
    const waiting: { answer: () => void; refuse: (why: Error) => void }[] = [];
    const keep = (file: object) =>
        new Promise<ReturnType<typeof reading>>((resolve, reject) => {
            sent.push(structuredClone(file) as JsonObject);
            waiting.push({ answer: () => resolve(reading(JSON.stringify(file))), refuse: reject });
        });
    const settle = async () => {
        for (let count = 0; count < 5; count++) await Promise.resolve();
    };
    return {
        sent,
        keep,
        async answer() {
            waiting.shift()?.answer();
            await settle();
        },
        async refuse() {
            waiting.shift()?.refuse(new Error('no'));
            await settle();
        },
    };
}

const fresh = (server = slowServer(), failures: unknown[] = []) => ({
    server,
    failures,
    page: new Document<object>('ticket', { name: 'a', lines: ['x', 'y', 'z'] }, reading('start'), {
        keep: server.keep,
        failed: (thrown) => failures.push(thrown),
    }),
});

test('an edit is kept at once, and shown as the server reads it', async () => {
    const { page, server } = fresh();
    void page.put('/name', 'b');
    assert.deepEqual(server.sent, [{ name: 'b', lines: ['x', 'y', 'z'] }]);
    assert.equal(page.saving, true);
    assert.equal(page.reading.aloud, 'start');
    await server.answer();
    assert.equal(page.saving, false);
    assert.match(page.reading.aloud, /"name":"b"/);
});

test('edits made while one is under way are kept together by the next', async () => {
    const { page, server } = fresh();
    void page.put('/name', 'b');
    void page.put('/name', 'c');
    void page.remove('/lines/1');
    assert.equal(server.sent.length, 1);
    await server.answer();
    assert.deepEqual(server.sent[1], { name: 'c', lines: ['x', 'z'] });
    await server.answer();
    assert.equal(server.sent.length, 2);
    assert.equal(page.saving, false);
});

test('an edit that changes nothing is no edit', () => {
    const { page, server } = fresh();
    void page.put('/name', 'a');
    assert.equal(server.sent.length, 0);
    assert.equal(page.undoable, 0);
});

test('everything can be undone and done again, and a new edit ends that', async () => {
    const { page, server } = fresh();
    const states = [JSON.stringify(page.file)];
    for (const edit of [
        () => page.put('/name', 'b'),
        () => page.move('/lines/0', 1),
        () => page.append('/lines', 'w'),
        () => page.append('/more', 1),
        () => page.remove('/lines/0'),
    ]) {
        void edit();
        await server.answer();
        states.push(JSON.stringify(page.file));
    }
    assert.equal(states.at(-1), '{"name":"b","lines":["x","z","w"],"more":[1]}');
    for (const state of states.slice(0, -1).reverse()) {
        page.undo();
        await server.answer();
        assert.equal(JSON.stringify(page.file), state);
    }
    page.undo();
    assert.equal(JSON.stringify(page.file), states[0], 'before the first there is nothing');
    for (const state of states.slice(1)) {
        page.redo();
        await server.answer();
        assert.equal(JSON.stringify(page.file), state);
    }
    page.undo();
    await server.answer();
    void page.put('/name', 'elsewhere');
    assert.equal(page.redoable, 0);
});

test('conditions go in and out of groups, and nothing is lost on the way', async () => {
    const server = { sent: 0 };
    const empty = { rows: [], problems: [], aloud: '' };
    const page = new Document<object>('ticket', { of: [{ kind: 'a' }, { kind: 'b' }, { kind: 'c' }] }, empty, {
        keep: () => Promise.resolve((server.sent++, empty)),
        failed: assert.fail,
    });
    assert.equal(await page.indent('/of/1'), '/of/1/of/0');
    assert.deepEqual(page.at('/of/1'), { kind: 'any', of: [{ kind: 'b' }] });
    assert.equal(await page.indent('/of/2'), '/of/1/of/1', 'it joins the group above');
    assert.deepEqual(page.at('/of'), [{ kind: 'a' }, { kind: 'any', of: [{ kind: 'b' }, { kind: 'c' }] }]);
    assert.equal(await page.outdent('/of/1/of/0'), '/of/2');
    assert.deepEqual(page.at('/of'), [{ kind: 'a' }, { kind: 'any', of: [{ kind: 'c' }] }, { kind: 'b' }]);
    assert.equal(await page.outdent('/of/1/of/0'), '/of/1', 'a group that is left empty goes');
    assert.deepEqual(page.at('/of'), [{ kind: 'a' }, { kind: 'c' }, { kind: 'b' }]);
    assert.equal(await page.outdent('/of/0'), '/of/0', 'there is nothing further out');
    await page.duplicate('/of/0');
    assert.deepEqual(page.at('/of'), [{ kind: 'a' }, { kind: 'a' }, { kind: 'c' }, { kind: 'b' }]);
});

test('a move beyond the ends does nothing', () => {
    const { page, server } = fresh();
    void page.move('/lines/0', -1);
    void page.move('/lines/2', 1);
    void page.move('/name', 1);
    assert.equal(server.sent.length, 0);
});

test('a refusal is told, the edit stays on the screen, and the next one is kept', async () => {
    const { page, server, failures } = fresh();
    void page.put('/name', 'b');
    await server.refuse();
    assert.equal(failures.length, 1);
    assert.equal(page.file.name, 'b');
    assert.equal(page.saving, false);
    void page.put('/name', 'c');
    assert.equal(server.sent.length, 2);
});

/** Any edits, in any order: undoing them all gives the first file back, doing them again the last, and the server has kept every state. */
test('random edits are undone and done again without a trace', async () => {
    let seed = 5;
    const random = (below: number) => (seed = (seed * 1103515245 + 12345) % 2147483648) % below;
    for (let story = 0; story < 40; story++) {
        const { page, server } = fresh();
        const states = [JSON.stringify(page.file)];
        for (let count = 0; count < 15; count++) {
            const lines = page.at('/lines') as unknown[];
            const place = `/lines/${random(lines.length + 1)}`;
            const edits = [
                () => page.put('/name', `name ${random(3)}`),
                () => page.put(place, `line ${random(4)}`),
                () => page.append('/lines', `new ${random(4)}`),
                () => page.move(place, random(2) ? 1 : -1),
                () => page.remove(place),
                () => page.duplicate(place),
            ];
            void edits[random(edits.length)]!();
            await server.answer();
            if (JSON.stringify(page.file) !== states.at(-1)) states.push(JSON.stringify(page.file));
        }
        const last = states.at(-1);
        while (page.undoable > 0) {
            assert.equal(JSON.stringify(page.file), states[page.undoable]);
            page.undo();
            await server.answer();
        }
        assert.equal(JSON.stringify(page.file), states[0]);
        while (page.redoable > 0) {
            page.redo();
            await server.answer();
        }
        assert.equal(JSON.stringify(page.file), last);
        assert.equal(JSON.stringify(server.sent.at(-1)), last, 'what is shown is what is kept');
    }
});

test('what could not be kept says so, is tried again, and stays so until it is kept', async () => {
    const { page, server, failures } = fresh();
    void page.put('/name', 'b');
    await server.refuse();
    assert.deepEqual([page.unsaved, page.saving, failures.length], [true, false, 1]);
    void page.put('/name', 'c');
    await server.refuse();
    assert.equal(page.unsaved, true);
    void page.again();
    assert.equal((server.sent.at(-1) as { name: string }).name, 'c');
    await server.answer();
    assert.deepEqual([page.unsaved, page.saving], [false, false]);
    const sent = server.sent.length;
    await page.again();
    assert.equal(server.sent.length, sent, 'what is kept is not sent once more');
});

test('what may pass is tried again by itself', async (context) => {
    context.mock.timers.enable({ apis: ['setTimeout'] });
    const server = slowServer();
    const page = new Document<object>('ticket', { name: 'a' }, reading('start'), {
        keep: server.keep,
        failed: () => undefined,
        mayPass: () => true,
    });
    void page.put('/name', 'b');
    await server.refuse();
    context.mock.timers.tick(1999);
    assert.equal(server.sent.length, 1);
    context.mock.timers.tick(1);
    assert.equal(server.sent.length, 2);
    await server.refuse();
    context.mock.timers.tick(3999);
    assert.equal(server.sent.length, 2, 'the second time later');
    context.mock.timers.tick(1);
    await server.answer();
    assert.equal(page.unsaved, false);
});

test('what was written and not kept is found again in the browser, whatever the browser allows', () => {
    const kept = new Map<string, string>();
    const shelf = {
        getItem: (key: string) => kept.get(key) ?? null,
        setItem: (key: string, text: string) => void kept.set(key, text),
        removeItem: (key: string) => void kept.delete(key),
    };
    new UnsavedDraft<object>(1, 7, shelf).put({ name: 'b' }, 3);
    const found = new UnsavedDraft<object>(1, 7, shelf).take();
    assert.deepEqual([found?.file, found?.version], [{ name: 'b' }, 3]);
    assert.equal(new UnsavedDraft<object>(2, 7, shelf).take(), null, 'somebody else at the same screen does not see it');
    new UnsavedDraft<object>(1, 7, shelf).clear();
    assert.equal(new UnsavedDraft<object>(1, 7, shelf).take(), null);
    const full = {
        ...shelf,
        setItem: () => {
            throw new Error('full');
        },
    };
    new UnsavedDraft<object>(1, 7, full).put({}, 1);
});
