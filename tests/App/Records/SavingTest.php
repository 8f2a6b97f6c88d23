<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Models\People\Person;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Saves that meet others: what nobody else has touched goes through, a real clash asks, and every refusal is told. */
final class SavingTest extends TimeTestCase
{
    public function test_a_save_goes_through_unless_the_same_field_was_changed(): void
    {
        $this->inForce([
            'name' => 'Counts', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'set_fields', 'on' => 'customer',
                    'set' => [['field' => 'open_tickets', 'to' => ['kind' => 'value', 'value' => '1']]],
                ],
            ],
        ]);
        $customer = $this->customer();
        $seen = $this->now('customer', $customer['id']);
        $this->ticket(['customer' => $customer['id']]);
        self::assertGreaterThan($seen['version'], $this->now('customer', $customer['id'])['version'], 'a rule counts on the customer');
        $saved = $this->change($seen, ['notes' => 'Rings twice'])['record'];
        self::assertSame(
            ['Rings twice', '1'],
            [$saved['values']['notes'], $saved['values']['open_tickets']],
            'and costs nobody their edit',
        );

        // Two people, two fields: both stand. What the second did not touch is not taken back by their form.
        $this->change($saved, ['plan' => 'basic'], 'lena.abara');
        $both = $this->change($saved, ['kind' => 'clinic', 'plan' => $saved['values']['plan'], 'notes' => 'Rings twice'])['record'];
        self::assertSame(['clinic', 'basic'], [$both['values']['kind'], $both['values']['plan']]);

        // The same field: asked, with who changed what to what, and only what clashes.
        $this->change($both, ['notes' => 'Rings thrice', 'kind' => 'office'], 'lena.abara');
        $asked = $this->as(
            'bram.castellan',
            'PATCH',
            "records/customer/{$customer['id']}",
            ['version' => $both['version'], 'values' => ['notes' => 'Knocks']],
        );
        $this->assertRefused($asked, 409, 'stale_version');
        $lena = $this->person('lena.abara')->name;
        self::assertSame(
            "{$lena} changed Notes to Rings thrice after you opened it. Look at what changed, then save again.",
            $asked->json('detail'),
        );
        self::assertSame(
            [[$lena, ['notes']]],
            array_map(static fn (array $one): array => [$one['who'], array_column($one['changes'], 'field')], $asked->json('since')),
        );
        self::assertSame('Rings thrice', $this->now('customer', $customer['id'])['values']['notes']);
    }

    public function test_a_rule_is_named_in_a_clash_only_for_what_it_changed(): void
    {
        $this->inForce([
            'name' => 'Marks it', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['hours']],
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]]],
        ]);
        $this->inForce([
            'name' => 'Looks only', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'comment', 'text' => 'Seen']],
        ]);
        $seen = $this->ticket()['record'];
        $this->change($seen, ['hours' => '3'], 'lena.abara');
        $asked = $this->as(
            'bram.castellan',
            'PATCH',
            "records/ticket/{$seen['id']}",
            ['version' => $seen['version'], 'values' => ['review' => 'done']],
        );
        $this->assertRefused($asked, 409, 'stale_version');
        self::assertSame(
            [['rule Marks it', ['review']]],
            array_map(static fn (array $one): array => [$one['who'], array_column($one['changes'], 'field')], $asked->json('since')),
        );
    }

    public function test_a_refusal_inside_something_larger_leaves_its_entry(): void
    {
        $refuse = $this->inForce([
            'name' => 'Not without hours', 'on' => 'ticket', 'when' => ['kind' => 'task_done'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is_empty', 'field' => 'hours']]], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'refuse', 'message' => 'Fill in the hours first.']],
        ]);
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $ticket = $this->ticket(['priority' => 'urgent'])['record'];
        $task = (int) DB::table('tasks')->value('id');
        $this->as('ines.okafor', 'POST', "tasks/{$task}/complete")->assertStatus(422);
        self::assertSame('open', DB::table('tasks')->where('id', $task)->value('status'));
        self::assertSame(
            1,
            DB::table('entries')->where(['kind' => 'refused', 'rule_id' => $refuse, 'record_id' => $ticket['id']])->count(),
        );

        // A line of a rule that another rule refuses.
        $this->inForce([
            'name' => 'Closed needs hours', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['status']],
            'onlyIf' => [
                'kind' => 'all',
                'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'closed'], ['kind' => 'is_empty', 'field' => 'hours']],
            ],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'refuse', 'message' => 'Fill in the hours first.']],
        ]);
        $this->inForce([
            'name' => 'Closes', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]],
                    'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
                ],
            ],
        ]);
        $other = $this->ticket()['record']['id'];
        $this->passTo('2026-11-28T12:00:00Z');
        self::assertSame('open', DB::table('records_ticket')->where('id', $other)->value('status'));
        self::assertContains('refused', $this->kinds($other));
        self::assertSame(
            0,
            DB::table('scheduled_lines')->where(['record_id' => $other, 'status' => 'pencilled'])->count(),
            'it is not tried for ever',
        );

        // What several at once refuse leaves its entry too.
        $answer = $this->as(
            'ines.okafor',
            'POST',
            'records/ticket/several',
            ['records' => [['id' => $other, 'version' => 1, 'values' => ['status' => 'closed']]]],
        )->assertOk();
        self::assertSame('refused', $answer->json('0.result'));
        self::assertSame(2, DB::table('entries')->where(['record_id' => $other, 'kind' => 'refused'])->count());
    }

    public function test_nobody_who_has_left_is_found(): void
    {
        $team = (string) $this->person('bram.castellan')->team;
        $this->inForce([
            'name' => 'Turns', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'in_turn', 'team' => $team], 'title' => 'Turn', 'due' => null],
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Own', 'due' => null],
            ],
        ]);
        $this->as('ines.okafor', 'PATCH', 'company', ['fallbackPersonId' => 'priya.lindqvist'])->assertOk();
        $ticket = $this->ticket()['record'];
        Person::query()->where('handle', 'bram.castellan')->update(['active' => false]);
        $this->forgetEverything();
        for ($count = 0; $count < 6; $count++) {
            $this->created(
                'ticket',
                ['subject' => 'x', 'customer' => $ticket['values']['customer'], 'priority' => 'low', 'status' => 'open'],
                'ines.okafor',
            );
        }
        $bram = $this->person('bram.castellan')->id;
        self::assertSame([], DB::table('tasks')->where('record_id', '<>', $ticket['id'])->where('assignee_id', $bram)->pluck('id')->all());
        Person::query()->where('handle', 'priya.lindqvist')->update(['active' => false]);
        $this->forgetEverything();
        $this->created(
            'ticket',
            ['subject' => 'y', 'customer' => $ticket['values']['customer'], 'priority' => 'low', 'status' => 'open'],
            'ines.okafor',
        );
        $last = DB::table('tasks')->orderByDesc('id')->where('title', 'Own')->value('assignee_id');
        self::assertNotSame($this->person('priya.lindqvist')->id, $last, 'nor does somebody stand in who has left');
    }
}
