<?php

declare(strict_types=1);

namespace App\Demo;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\SignOffSeat;
use App\Models\Tasks\Task;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\Records\RecordEvents;
use App\Store\Records\SaveRecord;
use App\Store\Tasks\TaskStore;
use App\Store\Types\SchemaStore;
use App\Work\Timing\LineWorker;
use App\Work\Timing\Sweep;
use Closure;
use Illuminate\Database\Connection;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/**
 * Eighteen months of a made-up company. Every record is saved by the way a person saves it, on a held clock, so what
 * the ledger shows is what the rules really did. The same seed gives the same history.
 */
final class ServiceHistory
{
    private const MONTHS = 18;

    private const CUSTOMERS = 400;

    private const CONTACTS = 560;

    private const TICKETS = 900;

    /** So long before the end the company began with rules that time sets off. */
    private const RULES_IN_TIME_DAYS = 60;

    /** What time brings about is looked for so often. */
    private const SWEEP_SECONDS = 3600;

    /** Saves that share one transaction, for speed. */
    private const CHUNK = 100;

    private Stage $stage;

    /** @var list<DemoPart> */
    private readonly array $parts;

    /** @var array<string, mixed> */
    private array $words = [];

    /** @var array<string, list<Person>> service people by depot */
    private array $crew = [];

    /** @var array<string, list<Person>> sales people by depot */
    private array $sellers = [];

    /** @var list<Record> */
    private array $customers = [];

    /** @var array<int, list<int>> contact ids by customer */
    private array $contacts = [];

    private int $lastTask = 0;

    /** When the rules that time sets off begin, in seconds since 1970. */
    private int $inTimeFrom = 0;

    /** How far the play has come, in seconds since 1970. */
    private int $at = 0;

    public function __construct(
        private readonly Connection $db,
        private readonly SchemaStore $schemas,
        private readonly SaveRecord $save,
        private readonly TaskStore $tasks,
        private readonly LineWorker $worker,
        private readonly Sweep $sweep,
        private readonly HouseClock $clock,
        private readonly SalesHistory $sales,
        private readonly RecordEvents $remarks,
        private readonly SignOffHistory $signOffs,
        private readonly SlipHistory $slips,
        private readonly Enquiries $enquiries,
    ) {
        $this->parts = [$signOffs, $slips];
        $this->stage = new Stage(0, 0);
    }

    /**
     * @param  array<string, mixed>  $words  database/demo/words.yaml
     * @param  Closure(): void  $rulesInTime  puts the rules in force that time sets off
     * @param  Closure(int, int): void  $progress
     * @param  float  $share  of the customers, contacts and tickets, for a smaller company
     */
    public function play(
        \DateTimeImmutable $until,
        array $words,
        int $seed,
        Closure $rulesInTime,
        Closure $progress,
        float $share = 1.0,
    ): void {
        $this->stage = new Stage($seed, $until->getTimestamp());
        $this->at = $until->modify('-'.self::MONTHS.' months -1 day')->getTimestamp();
        $this->words = $words;
        foreach (Person::query()->orderBy('id')->get() as $person) {
            [$work, $depot] = explode(' ', strtolower($person->team)) + [1 => ''];
            if ($person->role === 'member' && $depot !== '') {
                $work === 'service' ? $this->crew[$depot][] = $person : $this->sellers[$depot][] = $person;
            }
        }
        $begin = $until->modify('-'.self::MONTHS.' months')->getTimestamp();
        foreach ($this->names((int) (self::CUSTOMERS * $share)) as $index => [$kind, $name]) {
            // Most were customers when the books begin; the others came over the months.
            $at = $index < 260 * $share ? $begin + $index * 60 : $this->stage->workingMoment($begin, $this->stage->end);
            $this->stage->at($at, fn () => $this->customer($kind, $name));
        }
        for ($index = 0; $index < self::CONTACTS * $share; $index++) {
            $this->stage->at($begin + 260 * 60 + $index * 30, fn () => $this->contact());
        }
        for ($index = 0; $index < self::TICKETS * $share; $index++) {
            // More of them lately, so that there is something to do today.
            $at = $index % 6 === 0 ? $this->stage->workingMoment(
                $this->stage->end - 21 * 86400,
                $this->stage->end,
            ) : $this->stage->workingMoment($begin + 40 * 3600, $this->stage->end);
            $this->stage->at($at, fn () => $this->ticket());
        }
        $this->sales->begin(
            $this->stage,
            $begin,
            $words,
            $share,
            fn (): Record => $this->stage->one($this->customers),
            fn (int $customer): ?int => isset($this->contacts[$customer]) ? $this->stage->one($this->contacts[$customer]) : null,
        );
        $this->signOffs->begin($this->stage, $seed, $words['declined']);
        $this->slips->begin($this->stage, $seed);
        $this->enquiries->begin($this->stage);
        $this->inTimeFrom = $this->stage->end - max(8, (int) (self::RULES_IN_TIME_DAYS * min(1, $share))) * 86400;
        $this->stage->at($this->inTimeFrom, $rulesInTime);
        $this->run($progress);
    }

    /** @param  Closure(int, int): void  $progress */
    private function run(Closure $progress): void
    {
        $done = 0;
        $this->stage->ahead->setExtractFlags(\SplPriorityQueue::EXTR_BOTH);
        while (! $this->stage->ahead->isEmpty()) {
            $this->db->transaction(function () use (&$done, $progress): void {
                for ($count = 0; $count < self::CHUNK && ! $this->stage->ahead->isEmpty(); $count++) {
                    /** @var array{data: Closure(): void, priority: int} $next as the flags say */
                    $next = $this->stage->ahead->extract();
                    ['data' => $happening, 'priority' => $priority] = $next;
                    $this->passTo(intdiv(-$priority, 1000));
                    $happening();
                    $this->answerTasks();
                    foreach ($this->parts as $part) {
                        $part->answer();
                    }
                    $done++;
                }
                $progress($done, $done + $this->stage->ahead->count());
            });
        }
        $this->passTo($this->stage->end);
        $this->clock->hold(null);
    }

    /** Everything that falls due up to a moment happens, at its time. */
    private function passTo(int $moment): void
    {
        while ($this->at < $moment) {
            $due = ScheduledLine::nextDue(new \DateTimeImmutable("@{$this->at}"));
            $sweep = $this->at < $this->inTimeFrom ? $moment : (intdiv($this->at, self::SWEEP_SECONDS) + 1) * self::SWEEP_SECONDS;
            $wakes = array_map(static fn (DemoPart $part): int => $part->next()?->getTimestamp() ?? $moment, $this->parts);
            $this->at = min($moment, $sweep, $due?->getTimestamp() ?? $moment, max($this->at, min($wakes)));
            $this->clock->hold(new \DateTimeImmutable("@{$this->at}"));
            if ($this->at % self::SWEEP_SECONDS === 0) {
                $this->sweep->work();
            }
            foreach ($this->parts as $part) {
                $part->tend(new \DateTimeImmutable("@{$this->at}"));
            }
            while ($this->worker->work(100) > 0);
        }
        $this->clock->hold(new \DateTimeImmutable("@{$moment}"));
    }

    private function customer(string $kind, string $name): void
    {
        $depot = $this->stage->one(['quayside', 'hillgate', 'birchmoor']);
        $seller = $this->stage->one($this->sellers[$depot]);
        $handle = trim((string) preg_replace('/[^a-z]+/', '-', strtolower($name)), '-');
        $saved = $this->save->create($this->type('customer'), [
            'name' => $name, 'kind' => $kind, 'depot' => $depot, 'owner' => $seller->id,
            'status' => $this->stage->one(['prospect', 'active', 'active', 'active']), 'plan' => $this->stage->one([
                'courtesy', 'basic', 'basic', 'care', 'care', 'care', 'full_care',
            ]),
            'key_account' => $key = $this->stage->random->getInt(1, 12) === 1,
            // By its number, so that chance goes on as it was.
            'next_contact' => $key ? gmdate('Y-m-d', $this->inTimeFrom + (1 + count($this->customers) % 20) * 86400) : null,
            'yearly_value' => (string) ($this->stage->random->getInt(8, 320) * 150),
            'discount' => $this->stage->random->getInt(1, 3) === 1 ? (string) $this->stage->random->getInt(2, 18) : null,
            'since' => $this->clock->now()->format('Y-m-d'),
            'email' => "hello@{$handle}.example", 'phone' => '+49 30 5550 '
                .$this->stage->random->getInt(1000, 9999), 'website' => "https://{$handle}.example",
        ], new Actor($seller->id));
        $this->customers[] = $saved->record;
    }

    private function contact(): void
    {
        $customer = $this->customers[count($this->contacts) < count($this->customers) ? count($this->contacts)
            : $this->stage->random->getInt(0, count($this->customers) - 1)];
        [$first, $last] = [$this->stage->one($this->words['first']), $this->stage->one($this->words['last'])];
        $domain = substr((string) $customer->value('email'), 6);
        $saved = $this->save->create($this->type('contact'), [
            'name' => "{$first} {$last}", 'customer' => $customer->id, 'job' => $this->stage->one($this->words['jobs']),
            'owner' => $customer->value('owner'),
            'email' => strtolower($first).'.'.strtolower($last).'@'.$domain, 'phone' => '+49 30 5551 '
                .$this->stage->random->getInt(1000, 9999),
            'language' => $this->stage->one(['en', 'de', 'de', 'pt', 'fi']), 'may_write' => $this->stage->random->getInt(1, 5) > 1,
        ], new Actor((int) $customer->value('owner')));
        $this->contacts[$customer->id][] = $saved->record->id;
    }

    private function ticket(): void
    {
        $customer = $this->stage->one($this->customers);
        $topic = $this->stage->one(array_keys($this->words['subjects']));
        $person = $this->stage->one($this->crew[(string) $customer->value('depot')]);
        $now = $this->clock->now();
        $saved = $this->save->create($this->type('ticket'), [
            'subject' => $this->stage->one($this->words['subjects'][$topic]), 'customer' => $customer->id,
            'contact' => isset($this->contacts[$customer->id]) ? $this->stage->one($this->contacts[$customer->id]) : null,
            'priority' => $this->stage->one([
                'low', 'normal', 'normal', 'normal', 'high', 'high', 'urgent',
            ]), 'status' => 'open', 'topic' => $topic,
            'owner' => $person->id, 'due' => $now->modify('+'.$this->stage->random->getInt(2, 12).' days')->format('Y-m-d'),
        ], new Actor($person->id));
        // Some of the latest are still as they came in.
        if ($now->getTimestamp() < $this->stage->end - 14 * 86400 || $this->stage->random->getInt(1, 2) === 1) {
            $this->later($saved->record->id, $person->id, $now->getTimestamp(), ['waiting', 'waiting', 'partner', 'closed', 'urgent']);
        }
    }

    /**
     * What happens next to a ticket, some working days on.
     *
     * @param  list<string>  $ways
     */
    private function later(int $ticket, int $person, int $from, array $ways): void
    {
        $way = $this->stage->one($ways);
        $at = $this->stage->workingMoment($from + 3 * 3600, $from + 6 * 86400);
        $this->stage->at($at, function () use ($ticket, $person, $way, $at): void {
            $type = $this->type('ticket');
            $version = StoredRecord::of('ticket')->newQuery()->findOrFail($ticket)->version;
            $values = match ($way) {
                'urgent' => $this->stage->random->getInt(1, 2) === 1 ? ['escalate' => true] : ['priority' => 'urgent'],
                'closed' => [
                    'status' => 'closed', 'hours' => $this->stage->random->getInt(1, 24) / 4,
                    'cost' => (string) ($this->stage->random->getInt(0, 30) * 20),
                ],
                'back' => ['status' => 'open'],
                default => ['status' => $way],
            };
            $this->save->change($type, $ticket, $version, $values, new Actor($person));
            if ($this->stage->random->getInt(1, 6) === 1) {
                $this->remarks->comment($type, $ticket, $this->stage->one($this->words['comments']), new Actor($person));
            }
            if ($way !== 'closed') {
                $this->later($ticket, $person, $at, $way === 'waiting' ? ['back', 'closed', 'closed'] : ['closed', 'closed', 'waiting']);
            }
        });
    }

    /** People do most of their tasks, and most of them in time. */
    private function answerTasks(): void
    {
        // Those that go with a sign-off are done by deciding it.
        $signOffs = SignOffSeat::query()->whereNotNull('task_id')->select('task_id');
        foreach (Task::query()->where('id', '>', $this->lastTask)->whereNotIn('id', $signOffs)->orderBy('id')->get() as $task) {
            $this->lastTask = $task->id;
            $given = $task->given_at->getTimestamp();
            // Only of the latest tasks some are still waiting to be done.
            if ($task->assignee_id === null || ($given > $this->stage->end - 12 * 86400 && $this->stage->random->getInt(1, 3) === 1)) {
                continue;
            }
            $due = ($task->due_at ?? $task->given_at)->getTimestamp();
            $at = $this->stage->workingMoment(
                $given + 600,
                max($given + 7200, $due + ($this->stage->random->getInt(1, 6) === 1 ? 86400 : 0)),
            );
            $this->stage->at($at, function () use ($task): void {
                // It may have lapsed meanwhile.
                if (Task::query()->open()->whereKey($task->id)->exists()) {
                    $this->tasks->complete($task->id, (int) $task->assignee_id);
                }
            });
        }
    }

    /** @return list<array{string, string}> kind and name of so many customers, no two alike */
    private function names(int $count): array
    {
        $names = [];
        while (count($names) < $count) {
            $kind = $this->stage->one(['hotel', 'office', 'clinic']);
            [$a, $b] = [$this->stage->one($this->words['places']), $this->stage->one($this->words['places'])];
            $name = strtr($this->stage->one($this->words[$kind]), ['{a}' => $a, '{b}' => $b]);
            if ($a !== $b) {
                $names[$name] ??= [$kind, $name];
            }
        }

        return array_values($names);
    }

    private function type(string $name): RecordType
    {
        return $this->schemas->schema()->type($name) ?? throw new \LogicException("The demo has no {$name}.");
    }
}
