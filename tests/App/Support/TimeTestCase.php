<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Store\HouseClock;
use App\Store\Setup\Company;
use App\Work\Timing\ClockTurner;
use App\Work\Timing\LineWorker;
use App\Work\Timing\Sweep;
use Illuminate\Support\Facades\DB;

/** Stories in which time passes: the clock goes from one due moment to the next, as it does when the house clock is turned. */
abstract class TimeTestCase extends AppTestCase
{
    protected const CHASE = [
        'name' => 'Chase a silent customer', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'],
        'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']],
        ], 'fires' => ['kind' => 'becomes_true'],
        'lines' => [
            ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'First', 'body' => '<p>Hello</p>'],
            [
                'kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Second',
                'body' => '<p>Hello</p>', 'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day'],
            ],
            [
                'kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Last', 'body' => '<p>Hello</p>',
                'at' => ['kind' => 'after', 'amount' => 5, 'unit' => 'day', 'time' => '09:00'],
            ],
            [
                'kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]],
                'at' => ['kind' => 'after', 'amount' => 8, 'unit' => 'day'],
            ],
        ],
        'until' => [
            'kind' => 'any',
            'of' => [['kind' => 'happened', 'event' => 'reply'], ['kind' => 'is_not', 'field' => 'status', 'value' => 'waiting']],
        ],
    ];

    /** Everything that falls due up to a moment happens, at its own time, as it does when the house clock is turned. */
    protected function passTo(string $to): void
    {
        $target = new \DateTimeImmutable($to);
        $at = $this->app->make(HouseClock::class)->now();
        $turner = $this->app->make(ClockTurner::class);
        while ($at < $target) {
            [$at] = $turner->step($at, $target);
        }
        $this->app->make(Company::class)->setClock($at);
    }

    protected function workNow(): void
    {
        do {
            $done = $this->app->make(Sweep::class)->work() + $this->app->make(LineWorker::class)->work(50);
        } while ($done > 0);
    }

    /** @return list<string> subjects of the messages of a record, in order */
    protected function sent(int $record): array
    {
        return DB::table('messages')->where('record_id', $record)->orderBy('id')->pluck('subject')->all();
    }

    /** @return array<string, string> when each line still to come falls due, by how it reads, or how it ended */
    protected function lines(int $record): array
    {
        $lines = [];
        foreach (DB::select("SELECT * FROM scheduled_lines WHERE record_id = ? AND kind <> 'task_due' ORDER BY id", [$record]) as $row) {
            $lines["{$row->place}/{$row->turn}"] = $row->status === 'pencilled' ? (string) $row->due_at
                : $row->status.($row->struck_because === null ? '' : ": {$row->struck_because}");
        }

        return $lines;
    }

    /** @return array<string, mixed> a ticket whose contact can be written to */
    protected function written(array $values = []): array
    {
        $customer = $this->customer();
        $contact = $this->created(
            'contact',
            ['name' => 'Marit Solheim', 'customer' => $customer['id'], 'email' => 'marit@brine.example'],
        )['record'];

        return $this->ticket($values + ['customer' => $customer['id'], 'contact' => $contact['id']])['record'];
    }

    /** @return array<string, mixed> */
    protected function now(string $type, int $id): array
    {
        return $this->as('ines.okafor', 'GET', "records/{$type}/{$id}")->json();
    }

    /** @return list<string> kinds of a record's entries, in order */
    protected function kinds(int $record): array
    {
        return DB::table('entries')->where('record_id', $record)->where('record_type', 'ticket')->orderBy('id')->pluck('kind')->all();
    }
}
