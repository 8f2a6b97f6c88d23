<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Records\ChangeResource;
use App\Http\Records\HeadResource;
use App\Http\Rules\OutcomeResource;
use App\Models\Ledger\Entry;
use App\Models\Records\FieldChange;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Explain\Detail;
use VividLedger\Explain\EntryWords;
use VividLedger\Explain\FieldDifference;
use VividLedger\Explain\Headline;
use VividLedger\Explain\ReadEntry;
use VividLedger\Explain\Told;
use VividLedger\House\Person;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\FieldType;

/** Entries as the API gives them, in ink and on paper: what they keep is put into words here, and nowhere else. */
final readonly class EntryResources
{
    private EntryWords $words;

    public function __construct(private SchemaStore $schemas, private PeopleStore $names, Company $company, private SeenEntries $seen)
    {
        $this->words = new EntryWords($schemas->schema(), $names, Display::spoken($names, $company->zone()));
    }

    /**
     * Fetches at once what all of these name: records by their titles, and people.
     *
     * @param  list<Entry>  $entries  with their fields
     */
    public function remember(array $entries): void
    {
        $people = [];
        $records = [];
        foreach ($entries as $entry) {
            array_push(
                $people,
                ...(array) ($entry->data['person'] ?? []),
                ...array_column($entry->data['did'] ?? [], 'person'),
                ...array_merge(...array_column($entry->data['did'] ?? [], 'asked')),
                ...array_column($entry->data['happened'] ?? [], 'person'),
                ...array_column($entry->data['happened'] ?? [], 'other'),
            );
            if ($entry->record_type !== null && $entry->record_id !== null) {
                $records[$entry->record_type][] = $entry->record_id;
            }
            $values = [
                ...$entry->fields->map(
                    static fn (FieldChange $field): array => [$field->record_type, $field->field, $field->before],
                )->all(),
                ...$entry->fields->map(static fn (FieldChange $field): array => [$field->record_type, $field->field, $field->after])->all(),
                ...array_map(
                    static fn (array $did): array => [$did['type'] ?? '', $did['field'] ?? '', $did['before'] ?? null],
                    $entry->data['did'] ?? [],
                ),
                ...array_map(
                    static fn (array $did): array => [$did['type'] ?? '', $did['field'] ?? '', $did['after'] ?? null],
                    $entry->data['did'] ?? [],
                ),
            ];
            foreach ($values as [$type, $name, $value]) {
                $field = is_int($value) && is_string($type) ? $this->schemas->schema()->type($type)?->field($name) : null;
                if ($field?->type === FieldType::Person) {
                    $people[] = $value;
                } elseif ($field?->type === FieldType::Reference) {
                    $records[(string) $field->target][] = $value;
                }
            }
        }
        $this->seen->remember($entries);
        $this->names->rememberPeople(array_values(array_filter($people, is_int(...))));
        foreach ($records as $type => $ids) {
            $this->names->rememberTitles($type, $ids);
        }
    }

    /** @param  Entry  $entry  with its actor, rule and fields */
    public function of(Entry $entry): EntryResource
    {
        $type = $entry->record_type === null ? null : $this->schemas->schema()->type($entry->record_type);
        $id = $entry->record_id;
        $own = array_filter(
            $this->seen->fields($entry),
            static fn (FieldChange $field): bool => $field->record_type === $entry->record_type && $field->record_id === $id,
        );
        $changes = array_map(
            static fn (FieldChange $field): FieldDifference => new FieldDifference($field->field, $field->before, $field->after),
            array_values($own),
        );
        $data = $this->seen->data($entry);

        return $this->resource(
            $entry->id, Value::instantText($entry->at),
            $this->read(
                $entry->kind,
                $entry->via->value,
                $entry->actor?->name,
                $entry->rule?->name,
                $entry->page,
                $type?->name,
                $id,
                $changes,
                $data,
            ),
            $entry->actor?->id, $entry->actor?->handle, $type->name ?? $entry->record_type, $id,
            $type === null || $id === null ? null : $this->names->title($type->name, $id),
            $entry->rule_id, $entry->task_id, $entry->cause_id, $data, $entry->request,
        );
    }

    /** An entry of a rehearsal. */
    /** A record that only a rehearsal made, for others to name it. */
    public function suppose(Record $record): void
    {
        $title = $record->value($this->schemas->schema()->types[$record->type]->title);
        $this->names->call($record->type, $record->id, is_string($title) ? $title : null);
    }

    public function onPaper(int $number, \DateTimeImmutable $at, Told $told, string $via, ?Person $who, ?int $cause): EntryResource
    {
        $record = $told->record;
        $type = $this->schemas->schema()->types[$record->type];
        $title = $record->value($type->title);
        $data = (array) json_decode((string) json_encode($told->data), true);

        return $this->resource(
            $number, Value::instantText($at),
            $this->read(
                $told->kind,
                $via,
                $who?->name,
                $told->rule?->name,
                $told->rule?->page,
                $type->name,
                $record->id,
                $told->changes,
                $data,
            ),
            $who?->id, $who?->handle, $type->name, $record->id, is_string($title) ? $title : $type->numberOf($record->id),
            $told->rule?->id, null, $cause, $data,
        );
    }

    /**
     * @param  list<FieldDifference>  $changes
     * @param  array<array-key, mixed>  $data
     */
    private function read(
        string $kind, string $via, ?string $who, ?string $rule, ?int $page, ?string $type, ?int $id, array $changes, array $data,
    ): ReadEntry {
        $number = $type === null || $id === null ? null : $this->schemas->schema()->type($type)?->numberOf($id);
        $said = $type === null ? [] : $this->words->changes($type, $changes);

        return new ReadEntry(
            kind: $kind, via: $via, who: $who, rule: $rule, page: $page, number: $number, changes: $said, data: $this->words->data($data),
        );
    }

    /** @param  array<array-key, mixed>  $data */
    private function resource(
        int $number, string $at, ReadEntry $read, ?int $whoId, ?string $whoHandle, ?string $type, ?int $id, ?string $title, ?int $rule,
        ?int $task, ?int $cause, array $data, ?string $request = null,
    ): EntryResource {
        $why = is_array($data['why'] ?? null) ? VerdictResource::kept($data['why']) : null;

        return new EntryResource(
            number: $number, kind: $read->kind, at: $at, who: $read->who, whoId: $whoId, whoHandle: $whoHandle, via: $read->via,
            recordType: $type, recordId: $id, recordNumber: $read->number, recordTitle: $title, rule: $rule, ruleName: $read->rule,
            page: $read->page, task: $task, cause: $cause,
            changes: array_map(static fn (array $change): ChangeResource => new ChangeResource(...$change), $read->changes),
            head: HeadResource::of(
                (new Headline($read, false))->said(),
            ),
            headInLedger: HeadResource::of((new Headline($read, true))->said()), detail: (new Detail($read))->said(),
            outcomes: array_map(OutcomeResource::of(...), $read->kept->rows('did')), why: $why, answered: $read->wasAnswered(),
            data: $read->kept->data, request: $request,
        );
    }
}
