import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Shapes } from '../../resources/js/api/client';
import { detail, headline, outcomes, outcomeSaid, verdict, wasAnswered, type Outcome } from '../../resources/js/parts/entries';

type Entry = Shapes['EntryShape'];

function entry(kind: string, more: Record<string, unknown> = {}): Entry {
    return {
        number: 1,
        kind,
        via: 'person',
        who: 'Bram Castellan',
        ruleName: null,
        recordNumber: 'T-0007',
        page: 2,
        changes: [],
        data: {},
        ...more,
    } as unknown as Entry;
}

const said = (one: Entry, numbered = false) => {
    const { strong, rest } = headline(one, numbered);
    return `${strong} ${rest}`.replace('\u2011', '-');
};

const change = (label: string, before: string, after: string) => ({ label, before, after });

const headlines: [what: string, entry: Entry, beside: string, inLedger: string][] = [
    ['created', entry('created'), 'Bram Castellan created it', 'Bram Castellan created T-0007'],
    [
        'created by a script',
        entry('created', { via: 'api' }),
        'Bram Castellan created it through the API',
        'Bram Castellan created T-0007 through the API',
    ],
    ['made by a rule', entry('created', { via: 'rule' }), 'A rule made it', 'A rule made T-0007'],
    ['a line of a rule', entry('line', { via: 'rule', ruleName: 'Chase' }), 'Chase went on', 'Chase went on on T-0007'],
    [
        'a line done by hand',
        entry('line', { ruleName: 'Chase', data: { byHand: true, why: 'now' } }),
        'Chase did a line now, wanted by Bram Castellan',
        'Chase did a line now, wanted by Bram Castellan on T-0007',
    ],
    [
        'lines struck out',
        entry('struck', {
            via: 'rule',
            ruleName: 'Chase',
            data: { because: 'until it gets a reply', lines: [{ said: 'a' }, { said: 'b' }] },
        }),
        'Chase 2 lines struck out',
        'Chase 2 lines struck out on T-0007',
    ],
    [
        'a line too late',
        entry('too_late', { via: 'rule', ruleName: 'Chase', data: { lines: [{ said: 'a' }] } }),
        'Chase a line left out',
        'Chase a line left out on T-0007',
    ],
    [
        'lines that moved',
        entry('retimed', { via: 'rule', ruleName: 'Chase', data: { lines: [{ said: 'a' }] } }),
        'Chase a pencilled line moved',
        'Chase a pencilled line moved on T-0007',
    ],
    [
        'a line held',
        entry('held', { ruleName: 'Chase' }),
        'Bram Castellan held a line of Chase',
        'Bram Castellan held a line of Chase on T-0007',
    ],
    [
        'a list',
        entry('gathered', { ruleName: 'Morning list', recordNumber: null, data: { person: 'Lena Abara', records: 4 } }),
        'Morning list sent Lena Abara a list of 4 records',
        'Morning list sent Lena Abara a list of 4 records',
    ],
    [
        'a reply',
        entry('reply', { data: { from: 'marit@brine.example' } }),
        'marit@brine.example answered',
        'marit@brine.example answered about T-0007',
    ],
    [
        'a task moved',
        entry('task_changed', { data: { title: 'Call' } }),
        'Bram Castellan changed the task “Call”',
        'Bram Castellan changed the task “Call”',
    ],
    ['deleted', entry('deleted'), 'Bram Castellan deleted it', 'Bram Castellan deleted T-0007'],
    ['brought back', entry('restored'), 'Bram Castellan brought it back', 'Bram Castellan brought T-0007 back'],
    ['a comment', entry('comment', { data: { text: 'Hello' } }), 'Bram Castellan commented', 'Bram Castellan commented on T-0007'],
    ['a rule’s comment', entry('comment', { via: 'rule' }), 'A rule commented', 'A rule commented on T-0007'],
    [
        'a file',
        entry('file', { data: { name: 'wall.jpg' } }),
        'Bram Castellan added the file wall.jpg',
        'Bram Castellan added the file wall.jpg to T-0007',
    ],
    [
        'run by hand',
        entry('by_hand', { ruleName: 'Ask for photos' }),
        'Bram Castellan ran Ask for photos by hand',
        'Bram Castellan ran Ask for photos by hand on T-0007',
    ],
    [
        'a change',
        entry('changed', { changes: [change('Status', 'Open', 'Closed')] }),
        'Bram Castellan changed Status',
        'Bram Castellan changed Status of T-0007',
    ],
    [
        'a change of many fields',
        entry('changed', { changes: ['A', 'B', 'C', 'D'].map((label) => change(label, '', 'x')) }),
        'Bram Castellan changed A, B and 2 more fields',
        'Bram Castellan changed A, B and 2 more fields of T-0007',
    ],
    ['a rule fired', entry('fired', { ruleName: 'Urgent' }), 'Urgent fired', 'Urgent fired on T-0007'],
    [
        'a chain was stopped',
        entry('stopped', { data: { chain: ['Up', 'Down', 'Up'] } }),
        'Up → Down → Up was stopped',
        'Up → Down → Up was stopped on T-0007',
    ],
    [
        'a save was refused',
        entry('refused', { ruleName: 'No visit left' }),
        'No visit left refused a save by Bram Castellan',
        'No visit left refused a save of T-0007 by Bram Castellan',
    ],
    [
        'a new record was refused',
        entry('refused', { ruleName: 'No visit left', recordNumber: null }),
        'No visit left refused a save by Bram Castellan',
        'No visit left refused a save by Bram Castellan',
    ],
    [
        'a guard made ready by hand',
        entry('ready_again', { ruleName: 'Once' }),
        'Once is ready again, by Bram Castellan',
        'Once is ready again for T-0007, by Bram Castellan',
    ],
    [
        'a guard made ready by itself',
        entry('ready_again', { ruleName: 'Once', via: 'rule' }),
        'Once is ready again',
        'Once is ready again for T-0007',
    ],
    ['a task done', entry('task_done', { data: { title: 'Ring' } }), 'Bram Castellan did “Ring”', 'Bram Castellan did “Ring”'],
    ['a task fell due', entry('task_due', { data: { title: 'Ring' } }), 'Task fell due: Ring', 'Task fell due: Ring'],
    [
        'a rule in force',
        entry('rule_in_force', { ruleName: 'Urgent' }),
        'Urgent put in force, page 2, by Bram Castellan',
        'Urgent put in force, page 2, by Bram Castellan',
    ],
    [
        'a rule in a set',
        entry('rule_in_set', { ruleName: 'Urgent', data: { set: 'Discounts' } }),
        'Urgent stands in the either/or set “Discounts”, by Bram Castellan',
        'Urgent stands in the either/or set “Discounts”, by Bram Castellan',
    ],
    [
        'the order of rules',
        entry('rules_ordered'),
        'Bram Castellan put the rules in another order',
        'Bram Castellan put the rules in another order',
    ],
];

for (const [what, one, beside, inLedger] of headlines) {
    test(`headline: ${what}`, () => {
        assert.equal(said(one), beside);
        assert.equal(said(one, true), inLedger);
    });
}

const lines: [Outcome, string][] = [
    [{ kind: 'set', label: 'Status', before: 'Open', after: 'Closed', changed: true }, 'Status set to Closed'],
    [{ kind: 'set', label: 'Status', before: 'Closed', after: 'Closed', changed: false }, 'Status was Closed already'],
    [{ kind: 'set', label: 'Plan', before: 'Care', after: 'Basic', changed: true, on: 'Hotel Vane' }, 'Plan on Hotel Vane set to Basic'],
    [{ kind: 'task', title: 'Ring', person: 'Ines Okafor', path: '', stoodIn: false, due: null }, 'Task “Ring” to Ines Okafor'],
    [{ kind: 'task', title: 'Ring', person: null, path: '', stoodIn: false, due: '1 Dec 2026' }, 'Task “Ring” to nobody, due 1 Dec 2026'],
    [{ kind: 'message', channel: 'email', to: 'Marit Solheim', subject: 'Hello', missing: [] }, 'E-mail “Hello” to Marit Solheim'],
    [{ kind: 'message', channel: 'sms', to: '+49 30 5550', subject: '', missing: ['Due'] }, 'Text message to +49 30 5550, without Due'],
    [{ kind: 'message', channel: 'app', to: 'followers', subject: 'Hello', missing: [] }, 'Note “Hello” to followers'],
    [{ kind: 'created', record: 'A-0001 Care' }, 'Made A-0001 Care'],
    [{ kind: 'comment', text: 'Done', on: 'Hotel Vane' }, 'Commented on Hotel Vane: “Done”'],
    [{ kind: 'follow', person: 'Lena Abara', follows: true }, 'Lena Abara follows it'],
    [{ kind: 'follow', person: 'Lena Abara', follows: false }, 'Lena Abara follows it no more'],
    [{ kind: 'failed', label: 'set Cost', why: 'it has no value' }, 'set Cost could not be done: it has no value'],
    [{ kind: 'skipped', label: 'give a task', why: 'it is switched off' }, 'Left out: give a task, it is switched off'],
];

test('what each line did reads in a few words, and a firing lists them', () => {
    for (const [outcome, words] of lines) assert.equal(outcomeSaid(outcome), words);
    const fired = entry('fired', { data: { did: lines.map(([outcome]) => outcome) } });
    assert.equal(detail(fired), lines.map(([, words]) => words).join('\n'));
    assert.deepEqual(outcomes(entry('changed')), [], 'what is no firing did nothing');
    assert.equal(verdict(entry('changed')), undefined);
});

test('the second line says what the first leaves out', () => {
    const changed = entry('changed', { changes: [change('Status', 'Open', 'Closed'), change('Hours', 'empty', '2.00')] });
    assert.equal(detail(changed), 'Status: Open → Closed · Hours: empty → 2.00');
    assert.equal(detail(entry('comment', { data: { text: 'Two\nlines' } })), 'Two\nlines');
    assert.equal(detail(entry('refused', { data: { message: 'Renew it first.' } })), 'Renew it first.');
    assert.equal(detail(entry('rules_ordered', { data: { order: ['A', 'B'] } })), 'A · B');
    assert.match(detail(entry('stopped', { data: { cameRound: true } })), /had fired in this chain already/);
    assert.match(detail(entry('stopped', { data: { cameRound: false } })), /too long/);
    assert.equal(detail(entry('task_due', { data: { person: 'Ines Okafor' } })), 'for Ines Okafor');
    assert.equal(detail(entry('created')), '');
});

test('rules can be asked about whatever they were asked about then', () => {
    const asked = headlines.map(([, one]) => ({ ...one, recordId: 7 }) as Entry).filter(wasAnswered);
    assert.deepEqual(
        [...new Set(asked.map((one) => one.kind))],
        ['created', 'reply', 'deleted', 'comment', 'file', 'by_hand', 'changed', 'task_done'],
    );
    assert.equal(wasAnswered(entry('created', { recordId: null })), false);
});

test('what became of pencilled lines is told line by line', () => {
    const lines = [{ said: 'Remind the owner', due: '3 Dec 2026 09:00', to: '10 Dec 2026 09:00' }];
    assert.equal(
        detail(entry('retimed', { data: { because: 'Due moved', lines } })),
        'Due moved\nRemind the owner: 3 Dec 2026 09:00 → 10 Dec 2026 09:00',
    );
    assert.equal(
        detail(entry('struck', { data: { because: 'until it gets a reply', lines } })),
        'until it gets a reply\nRemind the owner, 3 Dec 2026 09:00',
    );
    assert.equal(
        detail(entry('postponed', { data: { because: 'quiet hours', until: '4 Dec 2026 08:00', lines } })),
        'quiet hours\nRemind the owner: 3 Dec 2026 09:00 → 4 Dec 2026 08:00',
    );
    assert.equal(
        outcomeSaid({ kind: 'waits', label: 'The e-mail', why: 'more than 2 messages', until: '7 Dec' }),
        'The e-mail waits until 7 Dec: more than 2 messages',
    );
    assert.equal(
        outcomeSaid({ kind: 'dropped', label: 'The e-mail', why: 'more than 2 messages' }),
        'The e-mail was dropped: more than 2 messages',
    );
});
