<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Ledger\Entry;
use App\Models\Records\FieldChange;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Explain\EntryWords;
use VividLedger\Explain\FieldDifference;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Whether what a person changed has been changed by somebody else since they opened the record; and if so, who changed what to what. */
final readonly class StaleVersion
{
    private const OF_RULES = ['fired', 'line'];

    public function __construct(private SchemaStore $schemas, private PeopleStore $names, private Company $company,
        private AccessScope $inSight)
    {
    }

    /**
     * What is left to save of a person's values. Fields that others have changed since, and the person has not, keep what they are.
     *
     * @param  array<string, string|int|bool|null>  $given  values that differ from the record
     * @return array<string, string|int|bool|null>
     *
     * @throws DomainError when the same field was changed by both
     */
    public function settled(RecordType $type, Record $now, int $seen, array $given): array
    {
        if ($seen > $now->version || $seen < 1) {
            throw $this->refusal($type, $now, $seen);
        }
        $touched = [];
        $since = Entry::query()->about($type->name, $now->id)->where('version', '>', $seen)->select('id');
        foreach (FieldChange::query()->about($type->name, $now->id)->whereIn('entry_id', $since)->orderBy('id')->toBase()->get() as $row) {
            $touched[$row->field] ??= [json_decode((string) $row->before, true, 4, JSON_THROW_ON_ERROR)];
        }
        foreach ($given as $name => $value) {
            if (! isset($touched[$name])) {
                continue;
            }
            if ($touched[$name][0] !== $value) {
                throw $this->refusal($type, $now, $seen, array_values(array_intersect(array_keys($given), array_keys($touched))));
            }
            // It is what the person saw, so the person did not touch it.
            unset($given[$name]);
        }

        return $given;
    }

    /** @param  ?list<string>  $fields  those it is about; null for all */
    public function refusal(RecordType $type, Record $now, int $seen, ?array $fields = null): DomainError
    {
        $rows = Entry::query()->about($type->name, $now->id)->where('version', '>', $seen)->orderBy('id')
            ->whereHas('fields', static fn (Builder $fields): Builder => $fields->about($type->name, $now->id))
            ->with(['actor', 'rule', 'cause.rule', 'fields'])->get();
        $display = Display::spoken($this->names, $this->company->zone());
        $words = new EntryWords($this->schemas->schema(), $this->names, $display);
        $since = [];
        $seenFields = $this->inSight->sight()->type($type)->fields;
        foreach ($rows as $row) {
            $changes = array_values(array_filter(
                $words->changes($type->name, $this->changesOf($row, $type, $now->id)),
                static fn (array $change): bool => isset($seenFields[$change['field']])
                    && ($fields === null || in_array($change['field'], $fields, true)),
            ));
            $rule = $this->ruleBehind($row);
            if ($changes !== []) {
                $since[] = [
                    'at' => Value::instantText($row->at),
                    'who' => $rule === null ? ($row->actor->name ?? Words::say('somebody')) : Words::say('rule {rule}', rule: $rule),
                    'changes' => $changes,
                ];
            }
        }
        $who = array_values(array_unique(array_column($since, 'who')));
        $what = array_values(array_unique(array_merge(
            ...array_map(
                static fn (array $one): array => array_map(
                    static fn (array $change): string => "{$change['label']} to {$change['after']}",
                    $one['changes'],
                ),
                $since,
            ),
        )));

        return new DomainError(
            'stale_version',
            Words::say(
                '{who} changed {what} after you opened it. Look at what changed, then save again.',
                who: $who === [] ? Words::say('Somebody') : Words::list($who),
                what: $fields === null || $what === [] ? Words::say(
                    'this {record}',
                    record: Words::within($type->label),
                ) : implode(', ', $what),
            ),
            RefusedFor::Conflict,
            more: ['version' => $now->version, 'since' => $since],
        );
    }

    /** @return list<FieldDifference> */
    private function changesOf(Entry $entry, RecordType $type, int $record): array
    {
        $own = $entry->fields->where('record_type', $type->name)->where('record_id', $record);

        return array_values($own->map(
            static fn (FieldChange $field): FieldDifference => new FieldDifference($field->field, $field->before, $field->after),
        )->all());
    }

    private function ruleBehind(Entry $entry): ?string
    {
        $of = in_array($entry->kind, self::OF_RULES, true) ? $entry : ($entry->via === CauseKind::Rule ? $entry->cause : null);

        return $of !== null && in_array($of->kind, self::OF_RULES, true) ? $of->rule?->name : null;
    }
}
