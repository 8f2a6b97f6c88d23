<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Batch;
use App\Store\Columns;
use App\Store\Company;
use App\Store\Gathering;
use App\Store\Outbox;
use App\Store\PeopleStore;
use App\Store\SchemaStore;
use App\Store\SqlQueryWriter;
use App\Store\StoredFacts;
use App\Store\TypeTable;
use Illuminate\Database\Connection;
use VividLedger\People\Person;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\SendList;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ComesRound;

/** A timetable comes round: every matching record gets its start, or every person the list of theirs. */
final readonly class Rounds
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Company $company,
        private Outbox $outbox,
        private HouseClock $clock,
    ) {
    }

    /** @return array{} what it starts, it starts itself */
    public function come(Rule $rule, ComesRound $trigger, \DateTimeImmutable $after, \DateTimeImmutable $until): array
    {
        $calendar = (new PeopleStore($this->db, $this->schemas))->calendar(null);
        $moments = $trigger->timetable->between($after, $until, $this->company->zone(), $calendar);
        // After an interruption the latest stands for those before it: nobody wants last week's lists.
        $moment = end($moments);
        if ($moment === false) {
            return [];
        }
        if ($trigger->per === null) {
            $this->each($rule, $trigger->occasion($moment), $moment);
        } else {
            $this->together($rule, $trigger, $trigger->occasion($moment));
        }

        return [];
    }

    private function each(Rule $rule, string $occasion, \DateTimeImmutable $moment): void
    {
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $rule->condition->query($writer);
        $this->db->insert(
            "INSERT INTO scheduled_lines (kind, due_at, record_type, record_id, entry_id, rule_id, page, said, note)
            SELECT 'round', ?, ?, t.id, 0, ?, ?, ?, ? FROM `".TypeTable::name($rule->on)."` t{$writer->joins()} WHERE {$where->text}",
            [Columns::moment($moment), $rule->on, $rule->id, $rule->page, mb_substr($rule->name, 0, 200), $occasion, ...$where->bindings],
        );
    }

    private function together(Rule $rule, ComesRound $trigger, string $occasion): void
    {
        $now = $this->clock->now();
        $zone = $this->company->zone();
        $facts = new StoredFacts($this->db, $this->schemas, $now, $zone);
        foreach ((new Gathering($this->db, $this->schemas))->byPerson($rule, $trigger, $facts, $zone) as [$person, $records]) {
            $this->send($rule, $person, $records, $facts, $occasion, $now, $zone);
        }
    }

    /** @param  non-empty-list<Record>  $records */
    private function send(Rule $rule, Person $person, array $records, StoredFacts $facts, string $occasion, \DateTimeImmutable $now, \DateTimeZone $zone): void
    {
        $display = new Display($facts, $zone);
        $messages = [];
        foreach ($rule->lines as $placed) {
            $message = $placed->line instanceof SendList ? $placed->line->message($records, $person, $facts, $display, $zone, $facts->calendar($person)) : null;
            if ($message !== null) {
                $messages[] = $message;
            }
        }
        $key = ['rule_id' => $rule->id, 'record_type' => 'person', 'record_id' => $person->id, 'epoch' => 0, 'guard_key' => $occasion];
        if ($messages === [] || $this->db->table('guard_keys')->where($key)->exists()) {
            return;
        }
        [$entry] = Batch::insertForIds($this->db, 'entries', [[
            'kind' => 'gathered', 'at' => Columns::moment($now), 'via' => 'rule', 'rule_id' => $rule->id, 'page' => $rule->page,
            'data' => json_encode(['person' => $person->name, 'records' => count($records), 'subject' => $messages[0]->subject], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ]]);
        Batch::insert($this->db, 'guard_keys', [$key + ['entry_id' => $entry, 'at' => Columns::moment($now)]]);
        // It is about many records, and so stands on none.
        $nothing = new Record($rule->on, 0, 0, []);
        $this->outbox->put(array_map(static fn ($message): array => [$message, $nothing, $rule->id, $entry, $now], $messages));
    }
}
