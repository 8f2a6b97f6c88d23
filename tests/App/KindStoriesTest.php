<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Inbound\Hook;
use App\Models\Tasks\Task;
use App\Store\Actor;
use App\Store\Records\RecordEvents;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;
use Tests\App\Timing\CaseStoriesTest;
use Tests\App\Timing\LineStoriesTest;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Rule\Value\AssignedValues;

/** A small story through the API for every kind of trigger, condition, line, value and guard: when it fires, and what comes of it. */
final class KindStoriesTest extends AppTestCase
{
    private const TASK = ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null];

    /**
     * @return iterable<string, array{string, array<string, mixed>, list<array{mixed, bool}>}> kind, the trigger, and what is done with
     *     whether it fires
     */
    public static function triggers(): iterable
    {
        $set = static fn (array $values): array => ['set' => $values];
        yield 'created' => ['created', [], [[['new' => []], true], [$set(['hours' => '1']), false]]];
        yield 'created or changed' => [
            'created_or_changed', [], [[['new' => []], true], [$set(['hours' => '1']), true], [$set(['hours' => '1.00']), false]],
        ];
        yield 'changed, any field' => ['changed', [], [[['new' => []], false], [$set(['hours' => '1']), true]]];
        yield 'changed, named fields' => [
            'changed', ['fields' => ['status', 'cost']],
            [[['new' => []], false], [$set(['hours' => '1']), false], [$set(['cost' => '2']), true]],
        ];
        yield 'changed, from a value' => [
            'changed', ['fields' => ['status'], 'from' => 'open'],
            [[['new' => []], false], [$set(['status' => 'waiting']), true], [$set(['status' => 'closed']), false]],
        ];
        yield 'changed, to a value' => [
            'changed', ['fields' => ['status'], 'to' => 'closed'],
            [[['new' => []], false], [$set(['status' => 'waiting']), false], [$set(['status' => 'closed']), true]],
        ];
        yield 'deleted' => ['deleted', [], [[['new' => []], false], [$set(['hours' => '1']), false], [['delete' => true], true]]];
        yield 'a parent changed' => [
            'related', ['related' => 'customer', 'happening' => 'changed', 'fields' => ['plan'], 'to' => 'basic'],
            [[['new' => []], false], [['customer' => ['name' => 'Another']], false], [['customer' => ['plan' => 'basic']], true]],
        ];
        yield 'a parent changed, on condition' => [
            'related',
            [
                'related' => 'customer', 'happening' => 'changed',
                'where' => ['kind' => 'all', 'of' => [['kind' => 'ticked', 'field' => 'key_account']]],
            ],
            [[['new' => []], false], [['customer' => ['plan' => 'basic']], false], [['customer' => ['key_account' => true]], true]],
        ];
        yield 'a comment' => ['comment', [], [[['new' => []], false], [['comment' => 'Hello'], true]]];
        yield 'a comment that mentions' => [
            'comment', ['about' => 'LEAK'], [[['new' => []], false], [['comment' => 'Hello'], false], [['comment' => 'It leaks'], true]],
        ];
        yield 'a file' => ['file', [], [[['new' => []], false], [['file' => 'photo.png'], true]]];
        yield 'a task done' => [
            'task_done', ['about' => 'ring'], [[['new' => []], false], [['task' => 'Ring them'], true], [['task' => 'Write'], false]],
        ];
        yield 'a reply' => [
            'reply', ['about' => 'thanks'], [[['new' => []], false], [['reply' => 'Why?'], false], [['reply' => 'Many thanks'], true]],
        ];
        yield 'a reply from somebody' => [
            'reply', ['from' => '@noor.example'],
            [
                [['new' => []], false], [['reply' => 'No', 'from' => 'Ann <ann@other.example>'], false],
                [['reply' => 'Yes', 'from' => 'Kim <KIM@Noor.example>'], true],
            ],
        ];
        yield 'any hook' => ['hook_brought', [], [[['new' => []], false], [['hook' => 'Alarms'], true]]];
        yield 'a certain hook' => [
            'hook_brought', ['hook' => 'Alarms'], [[['new' => []], false], [['hook' => 'Doors'], false], [['hook' => 'Alarms'], true]],
        ];
        yield 'a slip answered' => [
            'slip_answered', ['about' => 'gone'],
            [[['new' => []], false], [['slip' => 'All is well'], false], [['slip' => 'The palm is gone'], true]],
        ];
        yield 'by hand' => ['by_hand', [], [[['new' => []], false], [$set(['hours' => '1']), false], [['run' => true], true]]];
    }

    /**
     * @param  array<string, mixed>  $trigger
     * @param  list<array{array<string, mixed>, bool}>  $steps
     */
    #[DataProvider('triggers')]
    public function test_triggers(string $kind, array $trigger, array $steps): void
    {
        foreach (['Alarms', 'Doors'] as $name) {
            Hook::query()->create([
                'name' => $name, 'key' => bin2hex(random_bytes(16)), 'record_type' => 'ticket', 'secret' => 'whsec_',
                'takes' => [], 'starts' => [], 'may_create' => true, 'is_open' => true, 'version' => 1,
            ]);
        }
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => $kind] + $trigger, 'fires' => ['kind' => 'every_time'],
            'lines' => [self::TASK],
        ]);
        $customer = $this->customer();
        $ticket = null;
        foreach ($steps as $number => [$step, $fires]) {
            $before = $this->firings($rule);
            $ticket = $this->take($step, $ticket, $customer, $rule);
            self::assertSame($before + ($fires ? 1 : 0), $this->firings($rule), "step {$number}: ".json_encode($step));
        }
    }

    public function test_what_happens_to_a_child_is_told_to_both_its_parents(): void
    {
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'customer',
            'when' => ['kind' => 'related', 'related' => 'ticket.customer', 'happening' => 'created_or_changed'],
            'fires' => ['kind' => 'every_time'], 'lines' => [self::TASK],
        ]);
        [$one, $two] = [$this->customer('One'), $this->customer('Two')];
        $ticket = $this->ticket(['customer' => $one['id']])['record'];
        $this->change($ticket, ['customer' => $two['id']]);

        self::assertSame(
            [[$one['id'], $one['id'], $two['id']]],
            [
                DB::table('entries')->where([
                    'rule_id' => $rule, 'kind' => 'fired',
                ])->orderBy('record_id')->pluck('record_id')->map(intval(...))->all(),
            ],
        );
        $answers = $this->as('ines.okafor', 'GET', 'ledger/'.DB::table('entries')->where('kind', 'changed')->max('id').'/answers')->json();
        self::assertSame('fires', $answers[0]['verdict']['reason']);
    }

    /**
     * @return iterable<string, array{array<string, mixed>, array<string, mixed>, bool}> a condition, what changes, whether it then holds
     */
    public static function conditions(): iterable
    {
        yield 'has changed' => [['kind' => 'has_changed', 'field' => 'status'], ['status' => 'waiting'], true];
        yield 'has not changed' => [['kind' => 'has_changed', 'field' => 'status'], ['hours' => '2'], false];
        yield 'changed from' => [['kind' => 'changed_from', 'field' => 'priority', 'value' => 'normal'], ['priority' => 'high'], true];
        yield 'changed to' => [['kind' => 'changed_to', 'field' => 'priority', 'value' => 'normal'], ['priority' => 'high'], false];
        yield 'was' => [['kind' => 'was', 'field' => 'status', 'value' => 'open'], ['status' => 'closed'], true];
        yield 'made by a person' => [['kind' => 'made_by', 'by' => 'person'], ['hours' => '2'], true];
        yield 'made by a rule' => [['kind' => 'made_by', 'by' => 'rule'], ['hours' => '2'], false];
        yield 'made by the owner' => [['kind' => 'made_by', 'by' => ['kind' => 'owner']], ['hours' => '2'], true];
        yield 'not made by the owner’s manager' => [
            ['kind' => 'not_made_by', 'by' => ['kind' => 'manager', 'of' => ['kind' => 'owner']]], ['hours' => '2'], true,
        ];
        yield 'compared with another field' => [
            ['kind' => 'over', 'field' => 'cost', 'value' => ['kind' => 'field', 'path' => 'customer.yearly_value']], ['cost' => '1300'],
            true,
        ];
        yield 'compared with a smaller one' => [
            ['kind' => 'over', 'field' => 'cost', 'value' => ['kind' => 'field', 'path' => 'customer.yearly_value']], ['cost' => '1100'],
            false,
        ];
        yield 'compared with a person found' => [
            [
                'kind' => 'is', 'field' => 'owner',
                'value' => ['kind' => 'person', 'person' => ['kind' => 'in_field', 'path' => 'customer.owner']],
            ],
            ['owner' => 'jonas.pike'], true,
        ];
        yield 'a moving date' => [
            ['kind' => 'in_next', 'field' => 'due', 'value' => ['amount' => 7, 'unit' => 'day']], ['due' => '2026-12-01'], true,
        ];
        yield 'a moving date missed' => [
            ['kind' => 'in_next', 'field' => 'due', 'value' => ['amount' => 7, 'unit' => 'day']], ['due' => '2026-12-02'], false,
        ];
        yield 'has a tag' => [['kind' => 'has', 'field' => 'tags', 'value' => 'VIP'], ['tags' => ['vip', 'noisy']], true];
        yield 'counts its siblings' => [
            [
                'kind' => 'at_least',
                'total' => [
                    'of' => 'count', 'relation' => 'customer>ticket.customer',
                    'where' => ['kind' => 'is', 'field' => 'status', 'value' => 'open'],
                ],
                'value' => '1',
            ],
            ['status' => 'closed'], false,
        ];
        yield 'sums its siblings' => [
            ['kind' => 'is', 'total' => ['of' => 'sum', 'relation' => 'customer>ticket.customer', 'field' => 'cost'], 'value' => '12.50'],
            ['cost' => '12.5'], true,
        ];
        yield 'the latest of its siblings' => [
            [
                'kind' => 'is', 'total' => ['of' => 'latest', 'relation' => 'customer>ticket.customer', 'field' => 'due'],
                'value' => '2026-12-24',
            ],
            ['due' => '2026-12-24'], true,
        ];
        // A ticket begins without a cost; the first change gives it one, and from nothing to something is no rise.
        yield 'a cost that was not there' => [['kind' => 'rises_above', 'field' => 'cost', 'value' => '50'], ['cost' => '100'], false];
        yield 'a formula' => [
            ['kind' => 'formula', 'formula' => 'cost / hours > 40 and status != "Closed"'], ['cost' => '100', 'hours' => '2'], true,
        ];
        yield 'a formula that divides by zero' => [
            ['kind' => 'formula', 'formula' => 'cost / hours > 40'], ['cost' => '100', 'hours' => '0'], false,
        ];
        yield 'three hops' => [['kind' => 'is', 'field' => 'contact.customer.plan', 'value' => 'care'], ['hours' => '1'], false];
    }

    /**
     * @param  array<string, mixed>  $condition
     * @param  array<string, mixed>  $values
     */
    #[DataProvider('conditions')]
    public function test_conditions(array $condition, array $values, bool $holds): void
    {
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'onlyIf' => ['kind' => 'all', 'of' => [$condition]],
            'fires' => ['kind' => 'every_time'], 'lines' => [self::TASK],
        ]);
        $customer = $this->created(
            'customer',
            ['name' => 'Hotel', 'plan' => 'care', 'yearly_value' => '1200', 'owner' => $this->person('jonas.pike')->id],
        )['record'];
        $ticket = $this->ticket(['customer' => $customer['id']])['record'];
        if (isset($values['owner'])) {
            $values['owner'] = $this->person($values['owner'])->id;
        }
        $saved = $this->change($ticket, $values);

        self::assertSame($holds, $saved['fired'] !== []);
        $verdict = $this->as('odile.march', 'GET', "ledger/{$saved['entry']}/answers?rule={$rule}")->json('0.verdict');
        self::assertSame($holds ? 'fires' : 'conditions', $verdict['reason'], 'the past is explained as it was decided');
    }

    /**
     * @return iterable<string, array{array<string, mixed>, array<string, mixed>, array<string, mixed>}> what a field becomes, what the
     *     ticket was, and the fields afterwards
     */
    public static function values(): iterable
    {
        $to = static fn (string $field, array $to): array => ['field' => $field, 'to' => $to];
        yield 'value' => [$to('topic', ['kind' => 'value', 'value' => 'visit']), [], ['topic' => 'visit']];
        yield 'now' => [$to('closed_on', ['kind' => 'now']), [], ['closed_on' => '2026-11-24']];
        yield 'shift' => [
            $to('due', ['kind' => 'shift', 'amount' => -3, 'unit' => 'week']), ['due' => '2026-12-31'], ['due' => '2026-12-10'],
        ];
        yield 'shift over the end of a month' => [
            $to('due', ['kind' => 'shift', 'amount' => 1, 'unit' => 'month']), ['due' => '2027-01-31'], ['due' => '2027-02-28'],
        ];
        $day = static fn (string $day): array => ['kind' => 'calendar_day', 'day' => $day, 'from' => 'itself'];
        yield 'calendar_day' => [$to('due', $day('month_end_working')), ['due' => '2027-01-04'], ['due' => '2027-01-29']];
        yield 'calendar_day, the next working day' => [$to('due', $day('working_day')), ['due' => '2026-11-27'], ['due' => '2026-11-30']];
        yield 'person' => [
            $to('owner', ['kind' => 'person', 'person' => ['kind' => 'manager', 'of' => ['kind' => 'owner']]]), [],
            ['owner' => 'priya.lindqvist'],
        ];
        yield 'add' => [$to('cost', ['kind' => 'add', 'amount' => '0.1']), ['cost' => '0.2'], ['cost' => '0.30']];
        yield 'add to nothing' => [$to('cost', ['kind' => 'add', 'amount' => '5']), [], ['cost' => '5.00']];
        yield 'subtract a field' => [
            $to('cost', ['kind' => 'subtract', 'amount' => ['path' => 'hours']]), ['cost' => '10', 'hours' => '2.5'], ['cost' => '7.50'],
        ];
        yield 'multiply' => [$to('cost', ['kind' => 'multiply', 'amount' => '1.19']), ['cost' => '0.05'], ['cost' => '0.06']];
        yield 'add_member' => [$to('tags', ['kind' => 'add_member', 'member' => 'VIP']), ['tags' => 'noisy'], ['tags' => 'noisy,vip']];
        yield 'remove_member' => [
            $to('tags', ['kind' => 'remove_member', 'member' => 'noisy']), ['tags' => 'noisy,vip'], ['tags' => 'vip'],
        ];
        yield 'text' => [$to('notes', ['kind' => 'text', 'text' => 'About {subject}']), [], ['notes' => 'About Ficus wall wilting']];
        yield 'append' => [$to('notes', ['kind' => 'append', 'text' => 'second']), ['notes' => 'first'], ['notes' => "first\nsecond"]];
        yield 'copy' => [$to('notes', ['kind' => 'copy', 'from' => 'customer.name']), [], ['notes' => 'Brine & Barrow Hotel']];
        yield 'formula' => [$to('cost', ['kind' => 'formula', 'formula' => 'hours * 42 + 1']), ['hours' => '1.5'], ['cost' => '64.00']];
        yield 'clear' => [$to('due', ['kind' => 'clear']), ['due' => '2026-12-31'], ['due' => null]];
    }

    /**
     * @param  array<string, mixed>  $assignment
     * @param  array<string, mixed>  $before
     * @param  array<string, mixed>  $after
     */
    #[DataProvider('values')]
    public function test_values(array $assignment, array $before, array $after): void
    {
        $this->inForce([
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'set' => [$assignment]]],
        ]);
        $record = $this->ticket($before)['record'];
        foreach ($after as $field => $value) {
            self::assertSame($field === 'owner' ? $this->person($value)->id : $value, $record['values'][$field]);
        }
    }

    /**
     * @return iterable<string, array{array<string, mixed>, list<array{string, ?string, bool}>}> a guard; then when, the status to be set,
     *     and whether it fires
     */
    public static function guards(): iterable
    {
        $at = static fn (string $time): string => "2026-11-24T{$time}:00Z";
        yield 'every time' => [['kind' => 'every_time'], [[$at('09:00'), 'waiting', true], [$at('09:01'), 'open', true]]];
        yield 'becomes true' => [['kind' => 'becomes_true'], [[$at('09:00'), 'waiting', false], [$at('09:01'), 'open', false]]];
        yield 'once per record' => [['kind' => 'once_per_record'], [[$at('09:00'), 'waiting', true], [$at('09:01'), 'open', false]]];
        yield 'once per value' => [
            ['kind' => 'once_per_value', 'field' => 'status'],
            [
                [$at('09:00'), 'waiting', true], [$at('09:01'), 'open', true], [$at('09:02'), 'waiting', false],
                [$at('09:03'), 'closed', true],
            ],
        ];
        yield 'once in a period' => [
            ['kind' => 'once_in_period', 'period' => ['amount' => 2, 'unit' => 'hour']],
            [
                [$at('09:00'), 'waiting', true], [$at('10:59'), 'open', false], [$at('11:00'), 'waiting', true],
                [$at('11:01'), 'open', false],
            ],
        ];
        yield 'so many times' => [
            ['kind' => 'so_many_times', 'times' => 2],
            [[$at('09:00'), 'waiting', true], [$at('09:01'), 'open', true], [$at('09:02'), 'waiting', false]],
        ];
        yield 'ready again' => [
            ['kind' => 'once_per_record', 'again' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']],
            [
                [$at('09:00'), 'waiting', true], [$at('09:01'), 'open', false], [$at('09:02'), 'closed', true],
                [$at('09:03'), 'open', false], [$at('09:04'), 'closed', true],
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $guard
     * @param  list<array{string, string, bool}>  $steps
     */
    #[DataProvider('guards')]
    public function test_guards(array $guard, array $steps): void
    {
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'fires' => $guard, 'lines' => [self::TASK],
        ]);
        $ticket = $this->ticket()['record'];
        foreach ($steps as [$at, $status, $fires]) {
            $this->clockAt($at);
            $saved = $this->change($ticket, ['status' => $status]);
            self::assertSame($fires, $saved['fired'] !== [], "at {$at}, {$status}");
            $ticket = $saved['record'];
        }
        $used = $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/beside")->json('guards');
        if (in_array($guard['kind'], ['every_time', 'becomes_true'], true)) {
            self::assertSame([], $used);

            return;
        }
        self::assertSame($rule, $used[0]['rule']);
        // Made ready again by hand, it fires once more, and the ledger keeps who wanted that.
        $this->as('ines.okafor', 'POST', "records/ticket/{$ticket['id']}/guards/{$rule}", ['why' => 'tried out'])->assertOk();
        self::assertCount(1, $this->change($ticket, ['hours' => '9'])['fired']);
        $this->assertRefused(
            $this->as('priya.lindqvist', 'POST', "records/ticket/{$ticket['id']}/guards/{$rule}", ['why' => '']),
            403,
            'not_allowed',
        );
    }

    /** Three hops, a child count and ten rules that ask the same: each question goes to the database once in a save. */
    public function test_nothing_is_asked_twice_in_a_save(): void
    {
        $conditions = [
            ['kind' => 'is', 'field' => 'contact.customer.plan', 'value' => 'care'],
            ['kind' => 'at_least', 'total' => ['of' => 'count', 'relation' => 'customer>ticket.customer'], 'value' => '1'],
            [
                'kind' => 'is', 'field' => 'owner',
                'value' => ['kind' => 'person', 'person' => ['kind' => 'in_field', 'path' => 'customer.owner']],
            ],
        ];
        for ($count = 0; $count < 5; $count++) {
            $this->inForce([
                'name' => "R{$count}", 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['hours']],
                'onlyIf' => ['kind' => 'all', 'of' => $conditions], 'fires' => ['kind' => 'every_time'],
                'lines' => [self::TASK, ['kind' => 'comment', 'text' => 'x']],
            ]);
        }
        $customer = $this->created(
            'customer',
            ['name' => 'Hotel', 'plan' => 'care', 'owner' => $this->person('bram.castellan')->id],
        )['record'];
        $contact = $this->created('contact', ['name' => 'Marit', 'customer' => $customer['id']])['record'];
        $ticket = $this->ticket(['customer' => $customer['id'], 'contact' => $contact['id']])['record'];
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        $this->app->make(SaveRecord::class)->change($type, $ticket['id'], 1, ['hours' => '1'], new Actor(1));
        $asked = [];
        DB::listen(static function (\Illuminate\Database\Events\QueryExecuted $query) use (&$asked): void {
            if (str_starts_with(ltrim($query->sql), 'SELECT')) {
                $asked[] = $query->sql.' '.json_encode($query->bindings);
            }
        });
        $saved = $this->app->make(SaveRecord::class)->change($type, $ticket['id'], 2, ['hours' => '2'], new Actor(1));
        self::assertCount(5, $saved->decision->firings());
        self::assertSame($asked, array_values(array_unique($asked)));
        self::assertCount(1, preg_grep('/COUNT\(\*\)/', $asked) ?: []);
    }

    public function test_every_kind_has_its_story_here_or_in_the_line_stories(): void
    {
        $kinds = static fn (array $classes): array => array_map(static fn (string $class): string => $class::kind(), $classes);
        $told = static fn (iterable $cases, callable $kind): array => array_values(array_unique(array_map(
            $kind,
            array_values(iterator_to_array($cases)),
        )));
        // What time sets off has its stories in SweepTest.
        self::assertEqualsCanonicalizing(
            $kinds(Triggers::ALL),
            [...$told(self::triggers(), static fn (array $case): string => $case[0]), 'date', 'quiet', 'timetable'],
        );
        self::assertEqualsCanonicalizing(
            $kinds(RepeatGuards::ALL),
            $told(self::guards(), static fn (array $case): string => $case[0]['kind']),
        );
        self::assertEqualsCanonicalizing(
            $kinds(AssignedValues::ALL),
            [...$told(self::values(), static fn (array $case): string => $case[0]['to']['kind']), 'this', 'made'],
        );
        // Those that live in time have theirs in LinesInTimeTest, SweepTest, SignOffTest, SlipTest and CallTest.
        $inTime = ['remind', 'escalate', 'send_list', 'sign_off', 'slip', 'call'];
        self::assertEqualsCanonicalizing($kinds(Lines::ALL), [...LineStoriesTest::TOLD, ...CaseStoriesTest::TOLD, ...$inTime]);
        self::assertNotSame([], Operators::all());
    }

    /**
     * @param  array<string, mixed>  $step
     * @param  ?array<string, mixed>  $ticket
     * @param  array<string, mixed>  $customer
     * @return array<string, mixed> the ticket as it is then
     */
    private function take(array $step, ?array $ticket, array &$customer, int $rule): array
    {
        if (isset($step['new'])) {
            return $this->ticket($step['new'] + ['customer' => $customer['id']])['record'];
        }
        $path = "records/ticket/{$ticket['id']}";
        if (isset($step['set'])) {
            return $this->change($ticket, $step['set'])['record'];
        }
        if (isset($step['customer'])) {
            $customer = $this->change($customer, $step['customer'])['record'];
        } elseif (isset($step['delete'])) {
            $this->as('bram.castellan', 'DELETE', "{$path}?version={$ticket['version']}")->assertOk();
        } elseif (isset($step['comment'])) {
            $this->as('bram.castellan', 'POST', "{$path}/comments", ['text' => $step['comment']])->assertCreated();
        } elseif (isset($step['reply'])) {
            $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
            $this->app->make(RecordEvents::class)->reply(
                $type,
                $ticket['id'],
                $step['reply'],
                $step['from'] ?? 'marit@brine.example',
                new Actor(null),
            );
        } elseif (isset($step['slip']) || isset($step['hook'])) {
            $said = $step['hook'] ?? $step['slip'];
            $kind = isset($step['hook']) ? EventKind::HookBrought : EventKind::SlipAnswered;
            $this->app->make(SaveRecord::class)->recordEvent(
                $this->app->make(SchemaStore::class)->schema()->types['ticket'],
                $ticket['id'],
                static fn (): Event => new Event($kind, "{$kind->value}:".random_int(1, 1_000_000), $said, from: $said),
                new Actor(null),
                ['from' => $said],
            );
        } elseif (isset($step['file'])) {
            $this->actingAs($this->person('bram.castellan'), 'sanctum')->post(
                "/api/{$path}/files",
                ['file' => \Illuminate\Http\UploadedFile::fake()->createWithContent($step['file'], 'x')],
            )->assertCreated();
        } elseif (isset($step['task'])) {
            $id = Task::factory()->create([
                'title' => $step['task'], 'record_id' => $ticket['id'], 'assignee_id' => $this->person('bram.castellan')->id,
            ])->id;
            $this->as('bram.castellan', 'POST', "tasks/{$id}/complete")->assertOk();
        } elseif (isset($step['run'])) {
            $this->as(
                'bram.castellan',
                'POST',
                "rules/{$rule}/run",
                ['recordType' => 'ticket', 'records' => [$ticket['id']]],
            )->assertCreated()->assertJsonPath('fired', 1);
        }

        return $ticket;
    }
}
