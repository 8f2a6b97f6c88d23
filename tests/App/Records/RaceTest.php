<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Models\Tasks\Task;
use App\Models\Timing\ScheduledLine;
use App\Store\Slips\SlipLink;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\RunsTogether;

/** Several real processes at the same record and the same due lines: nothing is lost, nothing happens twice. */
final class RaceTest extends AppTestCase
{
    use RunsTogether;

    private const SAVES = 6;

    public function test_a_guard_holds_however_many_save_at_once(): void
    {
        $file = ['name' => 'Once', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Once',
                'due' => ['amount' => 1, 'unit' => 'day']]]];
        $once = $this->inForce($file);
        $every = $this->inForce(['name' => 'Every', 'fires' => ['kind' => 'every_time']] + $file);
        $note = ['lines' => [['kind' => 'comment', 'text' => 'x']]];
        $period = $this->inForce(
            ['name' => 'Period', 'fires' => ['kind' => 'once_in_period', 'period' => ['amount' => 1, 'unit' => 'day']]] + $note + $file,
        );
        $thrice = $this->inForce(['name' => 'Thrice', 'fires' => ['kind' => 'so_many_times', 'times' => 3]] + $note + $file);
        // Judged on the customer, which every save of its tickets finds through another record's lock.
        $parent = $this->inForce(
            [
                'name' => 'Parent', 'on' => 'customer',
                'when' => ['kind' => 'related', 'related' => 'ticket.customer', 'happening' => 'changed'],
                'fires' => ['kind' => 'once_per_record'],
            ] + $note + $file,
        );
        $ticket = $this->ticket()['record']['id'];
        $this->together(['tests/App/Support/save_in_turn.php', (string) $ticket, (string) self::SAVES]);

        $all = self::PROCESSES * self::SAVES;
        $fired = fn (int $rule): int => DB::table('entries')->where([
            'rule_id' => $rule, 'kind' => 'fired', 'record_id' => $ticket,
        ])->count();
        self::assertSame(
            [1 + $all, 1, $all, 1 + $all],
            [
                (int) DB::table('records_ticket')->where('id', $ticket)->value('version'), $fired($once), $fired($every),
                DB::table('tasks')->count(),
            ],
        );
        self::assertSame([1, 3], [$fired($period), $fired($thrice)]);
        self::assertSame(1, DB::table('entries')->where(['rule_id' => $parent, 'kind' => 'fired'])->count());
        self::assertSame(
            range(2, 1 + $all),
            DB::table('entries')->where([
                'kind' => 'changed', 'record_id' => $ticket,
            ])->orderBy('id')->pluck('version')->map(intval(...))->all(),
        );
    }

    /** Eight finish visits of one agreement at the same time, and the partner's counter counts each of them. */
    public function test_counters_end_exact(): void
    {
        $this->inForce($this->demoFile('210-visit-done'));
        $agreement = $this->created(
            'agreement',
            ['title' => 'Care', 'customer' => $this->customer()['id'], 'status' => 'running', 'visits_left' => '60'],
        )['record']['id'];
        $partner = $this->created('partner', ['name' => 'Crew', 'visits_done' => '0'])['record']['id'];
        for ($count = 0; $count < self::PROCESSES * self::SAVES; $count++) {
            $this->created('visit', ['purpose' => 'Check', 'agreement' => $agreement, 'partner' => $partner, 'status' => 'planned']);
        }
        $this->together(['tests/App/Support/finish_visits.php', (string) self::PROCESSES]);

        $all = self::PROCESSES * self::SAVES;
        self::assertSame(
            [(string) (60 - $all), (string) $all],
            [
                (string) DB::scalar('SELECT visits_left FROM records_agreement WHERE id = ?', [$agreement]),
                (string) DB::scalar('SELECT visits_done FROM records_partner WHERE id = ?', [$partner]),
            ],
        );
    }

    /** Three are asked and one yes is enough; however many press at once, it ends once, and what follows comes once. */
    public function test_a_sign_off_has_one_outcome_however_many_answer_at_once(): void
    {
        $people = array_map(fn (string $handle): int => $this->person($handle)->id, ['clea.harrow', 'ulla.verne', 'viktor.sand']);
        $named = static fn (string $handle): array => ['kind' => 'named', 'handle' => $handle];
        $after = static fn (string $status): array => ['kind' => 'comment', 'text' => "It is {$status}", 'at' => [
            'kind' => 'signed_off', 'line' => 'asked', 'status' => $status, 'amount' => 0, 'unit' => 'day',
        ]];
        $this->inForce([
            'name' => 'Asked at once', 'on' => 'quote', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'sign_off', 'key' => 'asked', 'steps' => [[
                'who' => ['kind' => 'people', 'people' => array_map($named, ['clea.harrow', 'ulla.verne', 'viktor.sand'])], 'needed' => 1,
            ]]], $after('agreed'), $after('declined')],
        ]);
        $customer = $this->customer('One for sign-offs')['id'];
        for ($round = 0; $round < 4; $round++) {
            $this->created('quote', ['subject' => "Q {$round}", 'customer' => $customer, 'stage' => 'draft'], 'jonas.pike');
            $id = (int) DB::table('sign_offs')->max('id');
            $this->together(['tests/App/Support/answer_sign_off.php', (string) $id, ...array_map(strval(...), $people)]);
            $status = DB::table('sign_offs')->where('id', $id)->value('status');
            self::assertContains($status, ['agreed', 'declined']);
            $seats = DB::table('sign_off_seats')->where('sign_off_id', $id)->pluck('state')->countBy();
            self::assertSame($status === 'agreed' ? 1 : 0, $seats['yes'] ?? 0, 'nobody’s second answer counts');
            self::assertSame($status === 'declined' ? 3 : $seats['no'] ?? 0, $seats['no'] ?? 0, 'all three have to say no');
            self::assertSame(1, DB::table('entries')->where('kind', 'signed_off')->where('record_id', DB::table('sign_offs')
                ->where('id', $id)->value('record_id'))->where('record_type', 'quote')->count());
        }
    }

    /** However many answer a slip at once, it is answered once, and the others correct it; what is posted to a hook is taken once. */
    public function test_a_slip_and_a_hook_take_what_comes_at_once_one_after_the_other(): void
    {
        $this->inForce([
            'name' => 'How long?', 'on' => 'visit', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [[
                'kind' => 'slip', 'to' => [['kind' => 'person', 'person' => ['kind' => 'named', 'handle' => 'jonas.pike']]],
                'subject' => 'Well?', 'body' => '<p>How long?</p>', 'asks' => [['kind' => 'field', 'path' => 'hours', 'needed' => true]],
            ]],
        ]);
        $hook = $this->as('ines.okafor', 'POST', 'hooks', [
            'name' => 'At once', 'recordType' => 'customer', 'takes' => [['path' => 'name', 'field' => 'name']], 'mayCreate' => true,
            'isOpen' => true,
        ])->assertCreated()->json('id');
        $customer = $this->customer('One for slips')['id'];
        $agreement = $this->created('agreement', ['title' => 'Care', 'customer' => $customer, 'status' => 'running'])['record']['id'];
        $tokens = [];
        for ($count = 0; $count < 5; $count++) {
            $this->created('visit', ['purpose' => "Slip {$count}", 'agreement' => $agreement, 'status' => 'done']);
            $turn = SlipTurnRow::query()->latest('id')->firstOrFail();
            $turn->update(['token_hash' => SlipLink::hash($tokens[] = SlipLink::token($turn))]);
        }
        $this->together(['tests/App/Support/answer_slip.php', implode(',', $tokens), (string) $hook]);

        $said = static fn (string $kind): int => DB::table('entries')->where('kind', 'slip')
            ->where('data', 'like', "%\"kind\":\"{$kind}\"%")->count();
        self::assertSame([5, 5 * (self::PROCESSES - 1)], [$said('answered'), $said('corrected')]);
        foreach (StoredSlip::query()->get() as $slip) {
            $written = (string) DB::table('records_visit')->where('id', $slip->record_id)->value('hours');
            self::assertSame((int) $written, (int) ($slip->given[0] ?? 0), 'what is kept is what is written');
        }
        self::assertSame([5, 5, 5 * self::PROCESSES], [
            DB::table('records_customer')->where('name', 'like', 'Posted %')->count(), DB::table('hook_arrivals')->count(),
            (int) DB::table('hook_arrivals')->sum('times'),
        ]);
    }

    /** A team that is asked for the first time by several saves at once: the turns stay even. */
    public function test_turns_stay_even_from_the_first_on(): void
    {
        $team = 'Service Quayside';
        $this->inForce([
            'name' => 'Turns', 'on' => 'visit', 'when' => [
                'kind' => 'changed', 'fields' => ['status'],
            ], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'in_turn', 'team' => $team], 'title' => 'Turn', 'due' => null]],
        ]);
        for ($count = 0; $count < self::PROCESSES * self::SAVES; $count++) {
            $customer ??= $this->customer('One for turns')['id'];
            $agreement = $this->created(
                'agreement',
                ['title' => "Care {$count}", 'customer' => $customer, 'status' => 'running'],
            )['record']['id'];
            $this->created('visit', ['purpose' => 'Check', 'agreement' => $agreement, 'status' => 'planned']);
        }
        $this->together(['tests/App/Support/finish_visits.php', (string) self::PROCESSES]);
        $given = DB::table('tasks')->where('title', 'Turn')->selectRaw('assignee_id, COUNT(*) AS n')->groupBy('assignee_id')->pluck('n')
            ->map(intval(...))->all();
        self::assertSame(self::PROCESSES * self::SAVES, array_sum($given));
        self::assertSame(
            DB::table('people')->where('team', $team)->where('active', true)->count(),
            count($given),
            'everybody has had a turn',
        );
        self::assertLessThanOrEqual(1, max($given) - min($given));
    }

    public function test_two_workers_put_every_due_line_into_ink_once(): void
    {
        DB::table('scheduled_lines')->delete();
        $task = Task::factory()->create()->id;
        ScheduledLine::factory()->count(950)->create(['task_id' => $task]);
        $this->together(['artisan', 'ledger:work', '--once']);

        self::assertSame(
            [950, 950],
            [DB::table('entries')->where('task_id', $task)->count(), DB::table('scheduled_lines')->where('status', 'inked')->count()],
        );
    }
}
