<?php

declare(strict_types=1);

namespace App\Evidence\People;

use App\Evidence\Ledger\Reversal;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\Rules\StoredRule;
use App\Models\Setup\CompanySettings;
use App\Models\SignOffs\SignOffSeat;
use App\Models\Slips\SlipTurnRow;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Library\KeptStore;
use App\Store\Outbound\Outbox;
use App\Store\People\PeopleRepository;
use App\Store\People\PeopleStore;
use App\Store\Records\SaveRecord;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\SignOffs\SignOffService;
use App\Store\Slips\SlipService;
use App\Store\Sql\Batch;
use App\Store\Tasks\TaskStore;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Record;
use VividLedger\SignOff\PassesLock;
use VividLedger\SignOff\SeatState;
use VividLedger\Slip\TurnState;
use VividLedger\Words\Words;

/**
 * Somebody leaves the company, and another takes over what was theirs: all in one step, or nothing. Should they come back, what the other
 * has not touched since is theirs again.
 */
final readonly class Leaving
{
    private const MOST = 2000;

    private const KIND = 'person_left';

    private const REVERSED_AT_ONCE = 50;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private TaskStore $tasks,
        private PeopleRepository $people,
        private Reversal $reversal,
        private HouseClock $clock,
        private KeptStore $kept,
        private SignOffService $signOffs,
        private SlipService $slips,
        private PeopleStore $names,
        private Company $company,
        private Outbox $outbox,
    ) {
    }

    /**
     * @return array{records: array<string, int>, tasks: int, signOffs: int, slips: int, people: int, rules: list<string>} what is theirs:
     *     records by type, and the rules that name them, which somebody has to look at
     */
    public function preview(Person $person): array
    {
        return [
            'records' => array_filter(array_map(count(...), $this->records($person->id))), 'tasks' => count(self::openTasks($person->id)),
            'signOffs' => count(self::signOffs($person->id)), 'slips' => count(self::slips($person->id)),
            'people' => Person::query()->where('manager_id', $person->id)->count(),
            'rules' => array_values($this->kept->usersOf('handle', $person->handle)),
        ];
    }

    /**
     * @param  int  $to  who takes over
     * @return int number of the entry
     *
     * @throws DomainError when a rule refuses a record, or there is too much for one step; then nothing has changed
     */
    public function leave(Person $person, int $to, int $by): int
    {
        if ($to === $person->id || ! Person::query()->whereKey($to)->where('active', true)->exists()) {
            throw DomainError::at('/to', Words::say('Choose somebody else who is with the company.'));
        }
        $records = $this->records($person->id);
        if (count(self::openTasks($person->id)) > self::MOST) {
            $message = Words::say('They have more than {most} tasks. Give most of them to others first.', most: self::MOST);
            throw new DomainError('too_many', $message, RefusedFor::Conflict);
        }
        if (array_sum(array_map(count(...), $records)) > self::MOST) {
            $message = Words::say('They own more than {most} records. Give most of them to others in the lists first.', most: self::MOST);
            throw new DomainError('too_many', $message, RefusedFor::Conflict);
        }

        return $this->db->transaction(function () use ($person, $to, $by, $records): int {
            $tasks = self::openTasks($person->id);
            $managed = array_values(array_map(intval(...), Person::query()->where('manager_id', $person->id)->pluck('id')->all()));
            [$entry] = Batch::insertForIds(Entry::class, [Entry::row(self::KIND, $this->clock->now(), [
                'person' => $person->id, 'other' => $to, 'records' => array_sum(array_map(count(...), $records)), 'tasks' => $tasks,
                'managed' => $managed, 'deputy' => $person->deputy_id,
            ], ['actor_id' => $by, 'via' => CauseKind::Person])]);
            foreach ($records as $name => $ids) {
                $type = $this->schemas->schema()->types[$name];
                foreach ($ids as $id) {
                    $this->save->correct($type, $id, [$type->owner => $to], new Actor($by), $entry, PassesLock::Leaving);
                }
            }
            foreach ($tasks as $task) {
                $this->tasks->change($task, ['assignee' => $to], $by);
            }
            foreach ($managed as $one) {
                $this->people->change($one, ['manager_id' => $one === $to ? $person->manager_id : $to], $by);
            }
            if (CompanySettings::query()->value('fallback_person_id') === $person->id) {
                $this->company->setFallbackPerson($to);
            }
            // Whoever stands in for somebody who is gone is asked in their place.
            $this->people->change($person->id, ['deputy_id' => $to, 'active' => false], $by);
            foreach (self::signOffs($person->id) as $signOff) {
                $this->signOffs->tend($signOff);
            }
            foreach (self::slips($person->id) as $slip) {
                $this->slips->handOver($slip, Person::query()->findOrFail($to), $by);
            }
            $this->tellOfRules($person, $to, $entry);

            return $entry;
        });
    }

    /**
     * @return array{records: int, tasks: int} so much is theirs again
     *
     * @throws DomainError when they are with the company
     */
    public function comeBack(Person $person, int $by): array
    {
        if ($person->active) {
            throw new DomainError('wrong_state', Words::say('{person} is with the company.', person: $person->name), RefusedFor::Conflict);
        }

        return $this->db->transaction(function () use ($person, $by): array {
            $left = Entry::query()->where('kind', self::KIND)->where('data->person', $person->id)->latest('id')->first();
            $deputy = $left === null ? [] : ['deputy_id' => $left->data['deputy'] ?? null];
            $this->people->change($person->id, ['active' => true] + $deputy, $by);
            if ($left === null) {
                return ['records' => 0, 'tasks' => 0];
            }
            $entries = array_map(intval(...), Entry::query()->where('cause_id', $left->id)->where('kind', 'changed')->pluck('id')->all());
            foreach (array_chunk($entries, self::REVERSED_AT_ONCE) as $some) {
                $this->reversal->reverse($some, false, "{$person->name} is back", $by);
            }
            $tasks = Task::query()->whereKey((array) ($left->data['tasks'] ?? []))->where('status', TaskStatus::Open)
                ->where('assignee_id', $left->data['other'])->pluck('id')->all();
            foreach ($tasks as $task) {
                $this->tasks->change((int) $task, ['assignee' => $person->id], $by);
            }
            $managed = Person::query()->whereKey((array) ($left->data['managed'] ?? []))->where('manager_id', $left->data['other']);
            foreach ($managed->get() as $one) {
                $this->people->change($one->id, ['manager_id' => $person->id], $by);
            }

            return ['records' => array_sum(array_map(count(...), $this->records($person->id))), 'tasks' => count($tasks)];
        });
    }

    /** @return array<string, list<int>> ids of what they own, by record type */
    private function records(int $person): array
    {
        $owned = [];
        foreach ($this->schemas->schema()->types as $type) {
            $ids = StoredRecord::rowsOf($type)->where($type->owner, $person)->orderBy('id')->limit(self::MOST + 1)->pluck('id')->all();
            $owned[$type->name] = array_values(array_map(intval(...), $ids));
        }

        return $owned;
    }

    /** @return list<int> */
    private static function openTasks(int $person): array
    {
        $open = Task::query()->where('assignee_id', $person)->where('status', TaskStatus::Open)->orderBy('id')->limit(self::MOST + 1);

        return array_values(array_map(intval(...), $open->pluck('id')->all()));
    }

    /** @return list<int> ids of sign-offs that wait for them */
    private static function signOffs(int $person): array
    {
        return Columns::ints(SignOffSeat::query()->where('person_id', $person)->where('state', SeatState::Waiting)->orderBy('sign_off_id')
            ->pluck('sign_off_id'));
    }

    /** @return list<int> ids of slips that wait for their answer */
    private static function slips(int $person): array
    {
        return Columns::ints(SlipTurnRow::query()->where('person_id', $person)->where('state', TurnState::Waiting)->orderBy('slip_id')
            ->pluck('slip_id'));
    }

    /** Rules that name them go on with whoever takes over: an entry for each says so, and a note to whoever put it in force. */
    private function tellOfRules(Person $person, int $to, int $cause): void
    {
        $now = $this->clock->now();
        $other = (string) Person::query()->whereKey($to)->value('name');
        $rules = StoredRule::query()->whereKey(array_keys($this->kept->usersOf('handle', $person->handle)))->with('currentPage')->get();
        foreach ($rules as $rule) {
            [$entry] = Batch::insertForIds(Entry::class, [Entry::row('named_left', $now, ['person' => $person->id, 'other' => $to], [
                'via' => CauseKind::Person, 'rule_id' => $rule->id, 'page' => $rule->page, 'cause_id' => $cause,
            ])]);
            $owner = $this->names->person($rule->currentPage->published_by ?? $rule->draft_by ?? 0);
            $reader = $owner?->isAtWork() === true ? $owner : $this->names->person($to);
            if ($reader === null) {
                continue;
            }
            $subject = Words::toKeep(static fn (): string => Words::say(
                '{person}, whom “{rule}” names, has left. {other} takes over.', person: $person->name, rule: $rule->name, other: $other,
            ));
            $this->outbox->put([[
                new Message(
                    channel: Channel::App, to: [new Address($reader->name, '', $reader->id)], cc: [], replyTo: null,
                    subject: mb_substr($subject, 0, 200), html: '',
                    text: Words::toKeep(static fn (): string => Words::say('Choose somebody else in the rule, if it should be another.')),
                    path: $reader->name, missing: [],
                ),
                new Record($rule->record_type, 0, 0, []), $rule->id, $entry, $now,
            ]]);
        }
    }
}
