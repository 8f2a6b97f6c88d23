<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Import\RowResult;
use App\Models\Ledger\Entry;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Ledger\DecisionRecord;
use App\Store\LedgerConnection;
use App\Store\Rules\CachingRuleBook;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Sql\Lock;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Firing;
use VividLedger\Engine\NoRules;
use VividLedger\Engine\RuleBook;
use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;
use VividLedger\Time\FixedClock;
use VividLedger\Words\Words;

/**
 * Many records saved in one transaction, a few hundred at a time; each is judged by the rules as if it were saved alone. One that a rule
 * refuses, or to which the values do not apply, is left as it is and keeps no other from being saved.
 */
final readonly class SaveMany
{
    public function __construct(
        private LedgerConnection $db,
        private SaveRecord $save,
        private SchemaStore $schemas,
        private Engine $engine,
        private StoredRuleBook $rules,
        private RecordInput $input,
        private Drafts $drafts,
        private RecordLock $lock,
        private RecordIds $ids,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    /**
     * The same change to many records.
     *
     * @param  list<int>  $ids
     * @param  array<array-key, mixed>  $input  raw values by field name
     * @return array<int, SavedRow> by record
     */
    public function change(RecordType $type, array $ids, array $input, Actor $actor, bool $isAnswered = true): array
    {
        $rows = array_map(static fn (int $id): RowToSave => new RowToSave($id, $input), $ids);

        return array_combine($ids, $this->save($type, $rows, $actor, $isAnswered));
    }

    /**
     * @param  list<RowToSave>  $rows
     * @param  bool  $isAnswered  whether rules start
     * @return list<SavedRow> in the order of the rows
     */
    public function save(RecordType $type, array $rows, Actor $actor, bool $isAnswered = true): array
    {
        return $this->db->transaction(function () use ($type, $rows, $actor, $isAnswered): array {
            try {
                return $this->together($type, $rows, $actor, $isAnswered);
            } catch (Taken $taken) {
                // Which of them it was, only each by itself tells.
                return count($rows) === 1 ? [SavedRow::refused($rows[0]->id, $taken->getMessage(), $taken->problems)]
                    : array_merge(...array_map(fn (RowToSave $row): array => $this->save($type, [$row], $actor, $isAnswered), $rows));
            }
        });
    }

    /**
     * @param  list<RowToSave>  $rows
     * @return list<SavedRow>
     *
     * @throws Taken
     */
    private function together(RecordType $type, array $rows, Actor $actor, bool $isAnswered): array
    {
        return $this->db->transaction(function () use ($type, $rows, $actor, $isAnswered): array {
            $now = $this->clock->now();
            $known = array_values(array_filter(array_map(static fn (RowToSave $row): ?int => $row->id, $rows), is_int(...)));
            $settlement = $this->save->settlement($now, static fn (StoredFacts $facts) => $facts->rememberLocks($type->name, $known));
            $book = $this->book($isAnswered);
            $there = $this->there($type, $rows, locked: true);
            $locked = $this->lock->among($type, array_keys($there));
            $fresh = $this->ids->take($type, count(array_filter($rows, static fn (RowToSave $row): bool => $row->id === null)));
            [$results, $refusals, $pending] = [[], [], []];
            $checked = $this->input->many($type, $rows, $there);
            foreach ($rows as $place => $row) {
                $ready = self::ready($type, $row, $there, $locked, $checked[$place]);
                if ($ready instanceof SavedRow) {
                    $results[] = $ready;

                    continue;
                }
                [$before, $given] = $ready;
                if ($before !== null && isset($pending[$before->id])) {
                    // It comes twice: what the first made of it has to be there for the second.
                    $settlement->flush();
                    $pending = [];
                }
                $after = $before === null ? $this->drafts->made($type, array_shift($fresh) ?? 0, $given, $actor, $now)
                    : $this->drafts->changed($type, $before, $given, $actor, $now);
                $change = new Change($before, $after, $actor->personId, $now, $actor->via);
                $decision = $settlement->decided($type->name, fn (StoredFacts $facts): Decision => $this->decide($change, $book, $facts));
                if ($decision->refusal !== null) {
                    $results[] = SavedRow::refused($row->id, $decision->refusal->message);
                    $refusals[] = $this->save->refused($type, $row->id, $actor, $decision->refusal);

                    continue;
                }
                $kind = $before === null ? RowResult::Created : RowResult::Changed;
                $results[] = $saved = SavedRow::saved($kind, $after->id, self::fired($decision));
                $there[$after->id] = $decision->after ?? $after;
                foreach ($decision->others as [, $other]) {
                    if ($other->type === $type->name && isset($there[$other->id])) {
                        $there[$other->id] = $other;
                    }
                }
                $pending[$after->id] = true;
                $settlement->add(
                    [$before, $decision->after], new DecisionRecord($change, $decision, $actor, $kind->value),
                    static function (int $entry) use ($saved): void {
                        $saved->entry = $entry;
                    },
                );
            }
            $settlement->flush();
            if ($refusals !== []) {
                Batch::insert(Entry::class, $refusals);
            }

            return $results;
        });
    }

    /**
     * What saving them would come to: each by itself, on paper; nothing is locked and nothing written.
     *
     * @param  list<RowToSave>  $rows
     * @return list<SavedRow> in the order of the rows
     */
    public function tried(RecordType $type, array $rows, Actor $actor, bool $isAnswered = true): array
    {
        $now = $this->clock->now();
        $book = $this->book($isAnswered);
        $facts = new PaperFacts($this->schemas, $now, $this->company->zone());
        $there = $this->there($type, $rows, locked: false);
        $locked = $this->lock->among($type, array_keys($there));
        $fresh = $facts->freshId($type->name);
        $checked = $this->input->many($type, $rows, $there);
        $results = [];
        foreach ($rows as $place => $row) {
            $ready = self::ready($type, $row, $there, $locked, $checked[$place]);
            if ($ready instanceof SavedRow) {
                $results[] = $ready;

                continue;
            }
            [$before, $given] = $ready;
            $after = $before === null ? $this->drafts->made($type, $fresh++, $given, $actor, $now, isOnPaper: true)
                : $this->drafts->changed($type, $before, $given, $actor, $now);
            $decision = $this->decide(new Change($before, $after, $actor->personId, $now, $actor->via), $book, $facts);
            $results[] = $decision->refusal !== null ? SavedRow::refused($row->id, $decision->refusal->message) : SavedRow::saved(
                $before === null ? RowResult::Created : RowResult::Changed, $after->id, self::fired($decision),
            );
        }

        return $results;
    }

    private function book(bool $isAnswered): RuleBook
    {
        $book = new CachingRuleBook($this->rules);

        return $isAnswered ? $book : new NoRules($book);
    }

    private function decide(Change $change, RuleBook $book, Facts $facts): Decision
    {
        return $this->engine->decide($change, $book, $facts, new FixedClock($change->at));
    }

    /**
     * The records that are there already.
     *
     * @param  list<RowToSave>  $rows
     * @return array<int, Record>
     */
    private function there(RecordType $type, array $rows, bool $locked): array
    {
        $ids = array_values(array_filter(array_map(static fn (RowToSave $row): ?int => $row->id, $rows)));

        return RecordSql::records($type, $ids, $locked ? Lock::WRITE : '');
    }

    /**
     * @param  array<int, Record>  $there
     * @param  array<int, mixed>  $locked
     * @param  array<string, string|int|bool|null>|DomainError  $checked
     * @return SavedRow|array{?Record, array<string, string|int|bool|null>} what comes of a row of which no rule is asked, because it
     *     cannot be saved or nothing is different; or the record as it was, and what it is given
     */
    private static function ready(RecordType $type, RowToSave $row, array $there, array $locked, array|DomainError $checked): SavedRow|array
    {
        $before = $row->id === null ? null : ($there[$row->id] ?? null);

        return match (true) {
            $row->id !== null && $before === null => SavedRow::refused(
                $row->id,
                Words::say('There is no such {record}.', record: Words::within($type->label)),
            ),
            $before !== null && isset($locked[$before->id]) => SavedRow::refused(
                $before->id, Words::say('{number} is locked while a sign-off waits.', number: $type->numberOf($before->id)),
            ),
            $checked instanceof DomainError => SavedRow::refused($row->id, $checked->getMessage(), $checked->problems),
            $before !== null && $checked === [] => SavedRow::same($before->id),
            default => [$before, $checked],
        };
    }

    /** @return list<Rule> */
    private static function fired(Decision $decision): array
    {
        return array_map(static fn (Firing $firing): Rule => $firing->rule, $decision->firings());
    }
}
