<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Explain\Detail;
use VividLedger\Explain\EntryWords;
use VividLedger\Explain\FieldDifference;
use VividLedger\Explain\Headline;
use VividLedger\Explain\Kept;
use VividLedger\Explain\OutcomeSentence;
use VividLedger\Explain\ReadEntry;
use VividLedger\Record\Display;

/** What the ledger keeps is data; this is how it reads. */
final class EntryWordsTest extends TestCase
{
    /** @return iterable<string, array{ReadEntry, string, string}> an entry, its headline on the record's account and in the ledger */
    public static function headlines(): iterable
    {
        $lines = ['lines' => [['said' => 'a']]];
        yield 'created' => [self::entry('created'), 'Bram Castellan created it', 'Bram Castellan created T-0007'];
        yield 'created by a script' => [
            self::entry('created', via: 'api'), 'Bram Castellan created it through the API', 'Bram Castellan created T-0007 through the '
                .'API',
        ];
        yield 'made by a rule' => [self::entry('created', via: 'rule'), 'A rule made it', 'A rule made T-0007'];
        yield 'a line' => [self::entry('line', via: 'rule', rule: 'Chase'), 'Chase did its next line', 'Chase did its next line on T-0007'];
        yield 'a line done by hand' => [
            self::entry('line', ['byHand' => true, 'why' => 'now'], rule: 'Chase'), 'Chase did a line now, wanted by Bram Castellan',
            'Chase did a line now, wanted by Bram Castellan on T-0007',
        ];
        yield 'lines struck out' => [
            self::entry('struck', ['lines' => [['said' => 'a'], ['said' => 'b']]], via: 'rule', rule: 'Chase'), 'Chase 2 lines struck out',
            'Chase 2 lines struck out on T-0007',
        ];
        yield 'too late' => [
            self::entry('too_late', $lines, via: 'rule', rule: 'Chase'), 'Chase a line left out', 'Chase a line left out on T-0007',
        ];
        yield 'moved' => [
            self::entry(
                'retimed',
                $lines,
                via: 'rule',
                rule: 'Chase',
            ), 'Chase a pencilled line moved', 'Chase a pencilled line moved on T-0007',
        ];
        yield 'held' => [
            self::entry('held', rule: 'Chase'), 'Bram Castellan held a line of Chase', 'Bram Castellan held a line of Chase on T-0007',
        ];
        yield 'a list' => [
            self::entry('gathered', ['person' => 'Lena Abara', 'records' => 4], rule: 'Morning list', number: null),
            'Morning list sent Lena Abara a list of 4 records', 'Morning list sent Lena Abara a list of 4 records',
        ];
        yield 'a reply' => [self::entry('reply', ['from' => 'marit@brine.example']), 'marit@brine.example answered',
            'marit@brine.example answered about T-0007'];
        yield 'a task moved' => [self::entry('task_changed', ['title' => 'Call']), 'Bram Castellan changed the task “Call”',
            'Bram Castellan changed the task “Call”'];
        yield 'a task of one’s own' => [self::entry('task_given', ['title' => 'Call']), 'Bram Castellan gave a task: “Call”',
            'Bram Castellan gave a task: “Call”'];
        yield 'deleted' => [self::entry('deleted'), 'Bram Castellan deleted it', 'Bram Castellan deleted T-0007'];
        yield 'brought back' => [self::entry('restored'), 'Bram Castellan brought it back', 'Bram Castellan brought T-0007 back'];
        yield 'a comment' => [self::entry('comment', ['text' => 'x']), 'Bram Castellan commented', 'Bram Castellan commented on T-0007'];
        yield 'a rule’s comment' => [self::entry('comment', via: 'rule'), 'A rule commented', 'A rule commented on T-0007'];
        yield 'a file' => [self::entry('file', ['name' => 'wall.jpg']), 'Bram Castellan added the file wall.jpg',
            'Bram Castellan added the file wall.jpg to T-0007'];
        yield 'by hand' => [self::entry('by_hand', rule: 'Ask for photos'), 'Bram Castellan ran Ask for photos by hand',
            'Bram Castellan ran Ask for photos by hand on T-0007'];
        yield 'a change' => [
            self::entry('changed', fields: ['Status']), 'Bram Castellan changed Status', 'Bram Castellan changed Status of T-0007',
        ];
        yield 'many fields' => [self::entry('changed', fields: ['A', 'B', 'C', 'D']), 'Bram Castellan changed A, B and 2 more fields',
            'Bram Castellan changed A, B and 2 more fields of T-0007'];
        yield 'fired' => [self::entry('fired', rule: 'Urgent'), 'Urgent fired', 'Urgent fired on T-0007'];
        yield 'stopped' => [self::entry('stopped', ['chain' => ['Up', 'Down', 'Up']]), 'Up → Down → Up was stopped',
            'Up → Down → Up was stopped on T-0007'];
        yield 'refused' => [self::entry('refused', rule: 'No visit left'), 'No visit left refused a save by Bram Castellan',
            'No visit left refused a save of T-0007 by Bram Castellan'];
        yield 'a new record refused' => [self::entry('refused', rule: 'No visit left', number: null),
            'No visit left refused a save by Bram Castellan', 'No visit left refused a save by Bram Castellan'];
        yield 'ready by hand' => [self::entry('ready_again', rule: 'Once'), 'Once is ready again, by Bram Castellan',
            'Once is ready again for T-0007, by Bram Castellan'];
        yield 'ready by itself' => [
            self::entry('ready_again', via: 'rule', rule: 'Once'), 'Once is ready again', 'Once is ready again for T-0007',
        ];
        yield 'a task done' => [self::entry('task_done', ['title' => 'Ring']), 'Bram Castellan did “Ring”', 'Bram Castellan did “Ring”'];
        yield 'a task fell due' => [self::entry('task_due', ['title' => 'Ring']), 'Task fell due: Ring', 'Task fell due: Ring'];
        yield 'in force' => [self::entry('rule_in_force', rule: 'Urgent'), 'Urgent put in force, page 2, by Bram Castellan',
            'Urgent put in force, page 2, by Bram Castellan'];
        yield 'in a set' => [self::entry('rule_in_set', ['set' => 'Discounts'], rule: 'Urgent'),
            'Urgent stands in the either/or set “Discounts”, by Bram '
                .'Castellan', 'Urgent stands in the either/or set “Discounts”, by Bram Castellan'];
        yield 'ordered' => [self::entry('rules_ordered'), 'Bram Castellan put the rules in another order',
            'Bram Castellan put the rules in another order'];
    }

    #[DataProvider('headlines')]
    public function test_a_headline_says_who_and_what(ReadEntry $entry, string $beside, string $inLedger): void
    {
        $said = static fn (bool $numbered): string => str_replace("\u{2011}", '-', implode(' ', (new Headline($entry, $numbered))->said()));

        self::assertSame([$beside, $inLedger], [$said(false), $said(true)]);
        $isAnswered = in_array($entry->kind, ['created', 'reply', 'deleted', 'comment', 'file', 'by_hand', 'changed', 'task_done'], true);
        self::assertSame($isAnswered && $entry->number !== null, $entry->wasAnswered());
    }

    public function test_what_each_line_did_reads_in_a_few_words_and_a_firing_lists_them(): void
    {
        $did = [
            'Status set to Closed' => ['kind' => 'set', 'label' => 'Status', 'after' => 'Closed', 'changed' => true],
            'Status was Closed already' => ['kind' => 'set', 'label' => 'Status', 'after' => 'Closed', 'changed' => false],
            'Plan on Hotel Vane set to Basic' => [
                'kind' => 'set', 'label' => 'Plan', 'after' => 'Basic', 'changed' => true, 'on' => 'Hotel Vane',
            ],
            'Task “Ring” to Ines Okafor' => ['kind' => 'task', 'title' => 'Ring', 'person' => 'Ines Okafor'],
            'Task “Ring” to nobody, due 1 Dec 2026' => ['kind' => 'task', 'title' => 'Ring', 'person' => null, 'due' => '1 Dec 2026'],
            'E-mail “Hello” to Marit Solheim' => ['kind' => 'message', 'channel' => 'email', 'to' => 'Marit Solheim', 'subject' => 'Hello'],
            'Text message to +49 30 5550, without Due' => [
                'kind' => 'message', 'channel' => 'sms', 'to' => '+49 30 5550', 'subject' => '', 'missing' => ['Due'],
            ],
            'Made A-0001 Care' => ['kind' => 'created', 'record' => 'A-0001 Care'],
            'Commented on Hotel Vane: “Done”' => ['kind' => 'comment', 'text' => 'Done', 'on' => 'Hotel Vane'],
            'Lena Abara follows it no more' => ['kind' => 'follow', 'person' => 'Lena Abara', 'follows' => false],
            'set Cost could not be done: it has no value' => ['kind' => 'failed', 'label' => 'set Cost', 'why' => 'it has no value'],
            'Left out: give a task, it is switched off' => ['kind' => 'skipped', 'label' => 'give a task', 'why' => 'it is switched off'],
            'The e-mail waits until 7 Dec: more than 2' => [
                'kind' => 'waits', 'label' => 'The e-mail', 'why' => 'more than 2', 'until' => '7 Dec',
            ],
            'The e-mail was dropped: more than 2' => ['kind' => 'dropped', 'label' => 'The e-mail', 'why' => 'more than 2'],
            'Look: only 5 of 9 were taken' => ['kind' => 'cut_off', 'label' => 'Look', 'done' => 5, 'of' => 9],
        ];
        foreach ($did as $said => $outcome) {
            self::assertSame($said, OutcomeSentence::of(new Kept($outcome)));
        }
        self::assertSame(implode("\n", array_keys($did)), $this->detail('fired', ['did' => array_values($did)]));
    }

    public function test_the_second_line_says_what_the_first_leaves_out(): void
    {
        $lines = ['lines' => [['said' => 'Remind the owner', 'due' => '3 Dec 2026 09:00', 'to' => '10 Dec 2026 09:00']]];
        $said = [
            'Two' => ['comment', ['text' => 'Two']], 'Renew it first.' => ['refused', ['message' => 'Renew it first.']],
            'A · B' => ['rules_ordered', ['order' => ['A', 'B']]], 'for Ines Okafor' => ['task_due', ['person' => 'Ines Okafor']],
            "Due moved\nRemind the owner: 3 Dec 2026 09:00 → 10 Dec 2026 09:00" => ['retimed', ['because' => 'Due moved'] + $lines],
            "until it gets a reply\nRemind the owner, 3 Dec 2026 09:00" => ['struck', ['because' => 'until it gets a reply'] + $lines],
            "quiet hours\nRemind the owner: 3 Dec 2026 09:00 → 4 Dec 2026 08:00" => [
                'postponed', ['because' => 'quiet hours', 'until' => '4 Dec 2026 08:00'] + $lines,
            ],
            'They want three more' => ['task_done', ['title' => 'Call', 'outcome' => 'They want three more']],
            'Ines Okafor · due 1 Dec' => ['task_given', ['title' => 'Call', 'person' => 'Ines Okafor', 'due' => '1 Dec']],
            'Due: no date → 1 Dec · nobody → Ines Okafor' => [
                'task_changed', ['due' => [null, '1 Dec'], 'person' => [null, 'Ines Okafor']],
            ],
            "“wrong”\nTask “Ring” cancelled\n2 pencilled lines struck out\n1 sign-off withdrawn\nLeft as changed since: Status\n"
                .'1 message stays sent' => [
                    'reversed', ['why' => 'wrong', 'tasks' => ['Ring'], 'lines' => 2, 'signOffs' => 1, 'kept' => ['Status'], 'sent' => 1],
                ],
            '' => ['created', []],
        ];
        foreach ($said as $words => [$kind, $data]) {
            self::assertSame($words, $this->detail($kind, $data));
        }
        self::assertStringContainsString('had fired in this chain already', $this->detail('stopped', ['cameRound' => true]));
        self::assertStringContainsString('too long', $this->detail('stopped', ['cameRound' => false]));
    }

    public function test_data_is_put_into_words_when_it_is_read(): void
    {
        $world = new World;
        $words = new EntryWords(World::schema(), $world, new Display($world, $world->zone()));
        self::assertSame(
            [['field' => 'status', 'label' => 'Status', 'before' => 'Open', 'after' => 'Closed']],
            $words->changes('ticket', [new FieldDifference('status', 'open', 'closed'), new FieldDifference('gone', 1, 2)]),
        );
        $read = $words->data([
            'did' => [
                ['kind' => 'set', 'type' => 'ticket', 'field' => 'status', 'before' => 'open', 'after' => 'closed', 'changed' => true],
                ['kind' => 'task', 'title' => 'Ring', 'person' => 1, 'due' => '2026-12-01T08:00:00Z'],
                ['kind' => 'task', 'title' => 'Ring', 'person' => null, 'due' => null],
            ],
            'lines' => [['said' => 'a', 'due' => '2026-12-01T08:00:00Z'], ['said' => 'b', 'due' => 'a text that stayed one']],
        ]);
        $name = $world->person(1)->name ?? '';
        $at = (new Display($world, $world->zone()))->moment(new \DateTimeImmutable('2026-12-01T08:00:00Z'));
        self::assertSame(['Status', 'Open', 'Closed'], [$read['did'][0]['label'], $read['did'][0]['before'], $read['did'][0]['after']]);
        self::assertSame([[$name, $at], [null, null]], array_map(
            static fn (array $did): array => [$did['person'], $did['due'] ?? null],
            array_slice($read['did'], 1),
        ));
        self::assertSame([$at, 'a text that stayed one'], array_column($read['lines'], 'due'));
    }

    /** @param  array<string, mixed>  $data */
    private function detail(string $kind, array $data): string
    {
        return (new Detail(self::entry($kind, $data)))->said();
    }

    /**
     * @param  array<string, mixed>  $data  in words
     * @param  list<string>  $fields
     */
    private static function entry(
        string $kind, array $data = [], string $via = 'person', ?string $rule = null, ?string $number = 'T-0007', array $fields = [],
    ): ReadEntry {
        $changes = array_map(
            static fn (string $label): array => ['field' => strtolower($label), 'label' => $label, 'before' => '', 'after' => 'x'],
            $fields,
        );

        return new ReadEntry($kind, $via, 'Bram Castellan', $rule, 2, $number, $changes, $data);
    }
}
