<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RulePage;

/** How every kind of trigger, condition, guard, value, person and line reads aloud, and what is wrong with a half of one. */
final class ReadingKindsTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, string}> what differs from a sound little rule, and a part of its sentence */
    public static function sentences(): iterable
    {
        $when = static fn (array $trigger): array => ['when' => $trigger];
        $if = static fn (array $condition): array => ['when' => ['kind' => 'changed'], 'onlyIf' => ['kind' => 'all', 'of' => [$condition]]];
        $line = static fn (array $line): array => ['lines' => [$line]];
        $to = static fn (string $field, array $value): array => $line(World::set($field, $value));

        yield 'a change from a value to another' => [
            $when(['kind' => 'changed', 'fields' => ['status'], 'from' => 'open', 'to' => 'closed']),
            'When a Ticket is changed in Status from Open to Closed',
        ];
        yield 'deleted' => [$when(['kind' => 'deleted']), 'When a Ticket is deleted'];
        yield 'a comment' => [$when(['kind' => 'comment', 'about' => 'leak']), '“leak”'];
        yield 'by hand' => [$when(['kind' => 'by_hand']), 'by hand'];
        yield 'a parent' => [
            $when(['kind' => 'related', 'related' => 'customer', 'happening' => 'changed', 'fields' => ['plan']]),
            'When a Ticket’s customer is changed in Plan',
        ];

        yield 'has changed' => [$if(['kind' => 'has_changed', 'field' => 'status']), 'only if Status has changed'];
        yield 'was' => [$if(['kind' => 'was', 'field' => 'status', 'value' => 'open']), 'only if Status was Open'];
        yield 'within days to come' => [
            $if(['kind' => 'in_next', 'field' => 'due', 'value' => ['amount' => 7, 'unit' => 'day']]), 'only if Due is in the next 7 days',
        ];
        yield 'against another field' => [
            $if(['kind' => 'over', 'field' => 'cost', 'value' => ['kind' => 'field', 'path' => 'rate']]),
            'only if Cost is over Cost an hour',
        ];
        yield 'a tag' => [$if(['kind' => 'has', 'field' => 'tags', 'value' => 'VIP']), 'Tags'];
        yield 'a count' => [
            $if(['kind' => 'at_least', 'total' => ['of' => 'count', 'relation' => 'customer>ticket.customer'], 'value' => '3']),
            'at least 3',
        ];
        yield 'a formula' => [$if(['kind' => 'formula', 'formula' => 'cost > 100']), 'cost > 100'];
        yield 'made by a rule' => [$if(['kind' => 'made_by', 'by' => 'rule']), 'by a rule'];

        yield 'once for each value' => [['fires' => ['kind' => 'once_per_value', 'field' => 'status']], 'Status'];
        yield 'once in two days' => [['fires' => ['kind' => 'once_in_period', 'period' => ['amount' => 2, 'unit' => 'day']]], '2 days'];
        yield 'three times' => [['fires' => ['kind' => 'so_many_times', 'times' => 3]], 'at most 3 times in all'];
        yield 'ready again' => [
            ['fires' => ['kind' => 'once_per_record', 'again' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]],
            'Status is Closed',
        ];

        yield 'a date later' => [$to('due', ['kind' => 'shift', 'amount' => 2, 'unit' => 'week']), '2 weeks'];
        yield 'an amount more' => [$to('cost', ['kind' => 'add', 'amount' => '5']), '5'];
        yield 'another field' => [$to('notes', ['kind' => 'copy', 'from' => 'customer.name']), 'set Notes to Customer › Name'];
        yield 'a formula’s result' => [$to('cost', ['kind' => 'formula', 'formula' => 'hours * 42']), 'hours * 42'];
        yield 'a written text' => [$to('notes', ['kind' => 'text', 'text' => 'About {subject}']), 'About {subject}'];
        yield 'a tag more' => [$to('tags', ['kind' => 'add_member', 'member' => 'VIP']), 'set Tags to what it is with vip'];
        yield 'the parent’s field' => [
            $line([
                'kind' => 'set_fields', 'on' => 'customer', 'set' => [['field' => 'key', 'to' => ['kind' => 'value', 'value' => true]]],
            ]),
            'Customer',
        ];

        yield 'whoever did it' => [
            $line(['kind' => 'give_task', 'to' => ['kind' => 'doer'], 'title' => 'Look', 'due' => null]), 'a task “Look”',
        ];
        yield 'in turn' => [$line(['kind' => 'assign', 'to' => ['kind' => 'in_turn', 'team' => 'Sales']]), 'Sales'];
        yield 'a comment written' => [$line(['kind' => 'comment', 'text' => 'Done: {subject}']), 'Done: {subject}'];
        yield 'a refusal' => [$line(['kind' => 'refuse', 'field' => 'cost', 'message' => 'Too dear.']), 'Too dear.'];
        yield 'a message' => [
            $line([
                'kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'About {subject}',
                'body' => '<p>Hello</p>',
            ]),
            'About {subject}',
        ];
        yield 'a line switched off' => [['lines' => [World::set('paid', true), ['off' => true] + World::set('code', 'x')]], 'set Paid to'];
    }

    /** @param  array<string, mixed>  $file */
    #[DataProvider('sentences')]
    public function test_it_reads(array $file, string $part): void
    {
        $page = (new World)->read($file);

        self::assertSame([], $this->problems($page));
        self::assertStringContainsString($part, $page->aloud());
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> what is wrong, where, with which code */
    public static function wrongs(): iterable
    {
        $when = static fn (array $trigger): array => ['when' => $trigger];
        $if = static fn (array $condition): array => ['when' => ['kind' => 'changed'], 'onlyIf' => ['kind' => 'all', 'of' => [$condition]]];
        $line = static fn (array $line): array => ['lines' => [$line]];
        $to = static fn (string $field, array $value): array => $line(World::set($field, $value));
        $message = static fn (array $with): array => $line(
            $with + [
                'kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'S',
                'body' => '<p>B</p>',
            ],
        );

        yield 'from a value of no field' => [$when(['kind' => 'changed', 'from' => 'open']), '/when/from', 'wrong_type'];
        yield 'from a value of two fields' => [
            $when(['kind' => 'changed', 'fields' => ['status', 'priority'], 'to' => 'open']), '/when/to', 'wrong_type',
        ];
        yield 'from a value that is not offered' => [
            $when(['kind' => 'changed', 'fields' => ['status'], 'to' => 'gone']), '/when/to', 'not_offered',
        ];
        yield 'related to nothing' => [
            $when(['kind' => 'related', 'related' => 'boat', 'happening' => 'changed']), '/when/related', 'unknown_relation',
        ];

        yield 'a formula with a gap' => [$if(['kind' => 'formula', 'formula' => 'cost >']), '/onlyIf/of/0/formula', 'bad_formula'];
        yield 'a formula that is no question' => [
            $if(['kind' => 'formula', 'formula' => 'cost + 1']), '/onlyIf/of/0/formula', 'wrong_type',
        ];
        yield 'a formula about nothing' => [$if(['kind' => 'formula', 'formula' => 'boat > 1']), '/onlyIf/of/0/formula', 'bad_formula'];
        yield 'a condition by a name nobody gave' => [$if(['kind' => 'named', 'name' => 'Mine']), '/onlyIf/of/0/name', 'unknown_named'];
        yield 'another field of another kind' => [
            $if(['kind' => 'over', 'field' => 'cost', 'value' => ['kind' => 'field', 'path' => 'due']]), '/onlyIf/of/0/value/path',
            'wrong_type',
        ];
        yield 'a count that is no number' => [
            $if(['kind' => 'at_least', 'total' => ['of' => 'count', 'relation' => 'customer>ticket.customer'], 'value' => 'many']),
            '/onlyIf/of/0/value', 'wrong_type',
        ];
        yield 'a sum of what cannot be added' => [
            $if([
                'kind' => 'at_least', 'total' => ['of' => 'sum', 'relation' => 'customer>ticket.customer', 'field' => 'subject'],
                'value' => '1',
            ]),
            '/onlyIf/of/0/total', 'unknown_field',
        ];

        yield 'so many times, none' => [['fires' => ['kind' => 'so_many_times', 'times' => 0]], '/fires/times', 'missing'];
        yield 'once for each value of nothing' => [
            ['fires' => ['kind' => 'once_per_value', 'field' => 'boat']], '/fires/field', 'unknown_field',
        ];
        yield 'ready again though never used up' => [
            ['fires' => ['kind' => 'every_time', 'again' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]], '/fires/again',
            'wrong_type',
        ];

        yield 'adding to a text' => [$to('code', ['kind' => 'add', 'amount' => '1']), '/lines/0/set/0/to', 'wrong_type'];
        yield 'moving a number by days' => [
            $to('cost', ['kind' => 'shift', 'amount' => 1, 'unit' => 'day']), '/lines/0/set/0/to', 'wrong_type',
        ];
        yield 'a tag for a text' => [$to('code', ['kind' => 'add_member', 'member' => 'x']), '/lines/0/set/0/to', 'wrong_type'];
        yield 'a computed field' => [$to('rate', ['kind' => 'value', 'value' => '1']), '/lines/0/set/0/field', 'not_settable'];
        yield 'a formula that yields something else' => [
            $to('cost', ['kind' => 'formula', 'formula' => 'cost > 1']), '/lines/0/set/0/to/formula', 'wrong_type',
        ];

        yield 'a message for nobody' => [$message(['to' => []]), '/lines/0/to/0', 'missing'];
        yield 'a message to no address' => [
            $message(['to' => [['kind' => 'address', 'address' => 'nowhere']]]), '/lines/0/to/0/address', 'wrong_type',
        ];
        yield 'a message to a field that is no contact' => [
            $message(['to' => [['kind' => 'field', 'path' => 'cost']]]), '/lines/0/to/0', 'unknown_field',
        ];
        yield 'a message without a subject' => [$message(['subject' => ' ']), '/lines/0/subject', 'missing'];
        yield 'a message that merges nothing' => [
            $message(['body' => '<p><span data-merge="boat">x</span></p>']), '/lines/0/body', 'unknown_field',
        ];
        yield 'an empty message' => [$message(['body' => '']), '/lines/0/body', 'missing'];
        yield 'a letter nobody keeps' => [
            $line(['kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'letter' => 'Gone']),
            '/lines/0', 'unknown_letter',
        ];

        yield 'a comment that says nothing' => [$line(['kind' => 'comment', 'text' => '']), '/lines/0/text', 'missing'];
        yield 'a refusal that says nothing' => [$line(['kind' => 'refuse', 'message' => '']), '/lines/0/message', 'missing'];
        yield 'a record of no kind' => [$line(['kind' => 'create_record', 'type' => 'boat', 'set' => []]), '/lines/0/type', 'unknown_type'];
        yield 'a record without what it needs' => [
            $line([
                'kind' => 'create_record', 'type' => 'customer',
                'set' => [['field' => 'plan', 'to' => ['kind' => 'value', 'value' => 'full']]],
            ]),
            '/lines/0/set/1', 'required',
        ];
        yield 'a team that is not there' => [
            $line(['kind' => 'assign', 'to' => ['kind' => 'in_turn', 'team' => 'Divers']]), '/lines/0/to', 'unknown_team',
        ];
        yield 'a line that goes by a sentence' => [$line(['key' => 'The call'] + World::set('paid', true)), '/lines/0/key', 'wrong_type'];
        yield 'a new record with a long name' => [
            $line(['kind' => 'create_record', 'type' => 'customer', 'as' => str_repeat('x', 61), 'set' => []]), '/lines/0/as', 'wrong_type',
        ];
        yield 'every line switched off' => [$line(['off' => true] + World::set('paid', true)), '/lines', 'all_off'];
    }

    /** @param  array<string, mixed>  $file */
    #[DataProvider('wrongs')]
    public function test_what_is_wrong_is_said_at_its_word(array $file, string $at, string $code): void
    {
        $page = (new World)->read($file);

        self::assertNull($page->rule);
        self::assertContains("{$at} {$code}", $this->problems($page));
    }

    /** @return list<string> */
    private function problems(RulePage $page): array
    {
        return array_map(static fn ($problem): string => "{$problem->at} {$problem->code}", $page->problems);
    }
}
