<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Models\Entry;
use App\Models\FieldChange;
use App\Models\PublishedPage;
use App\Store\Access\InSight;
use App\Store\Access\RecordGate;
use App\Store\Company;
use VividLedger\House\Directory;
use VividLedger\Rights\Act;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Schema;

/** What of an entry whoever asks may read: nothing of hidden fields, of records they do not see, or of conditions that read such. */
final class SeenEntries
{
    /** @var array<string, bool> whether a page's conditions may be read, by rule, page and record type */
    private array $readable = [];

    public function __construct(
        private readonly InSight $inSight,
        private readonly RecordGate $gate,
        private readonly Directory $directory,
        private readonly Company $company,
    ) {
    }

    /** @return list<FieldChange> */
    public function fields(Entry $entry): array
    {
        $fields = array_values($entry->fields->all());
        if ($this->inSight->isEverything()) {
            return $fields;
        }
        $schema = $this->inSight->schema();

        return array_values(array_filter(
            $fields,
            static fn (FieldChange $change): bool => self::knows($schema, $change->record_type, $change->field),
        ));
    }

    /** @return array<array-key, mixed> */
    public function data(Entry $entry): array
    {
        $data = $entry->data;
        if ($this->inSight->isEverything()) {
            return $data;
        }
        if (is_array($data['did'] ?? null)) {
            $schema = $this->inSight->schema();
            $data['did'] = array_values(array_filter($data['did'], fn (mixed $did): bool => $this->seesOutcome($schema, $did)));
        }
        $isReadable = $entry->rule_id === null || $this->mayReadRule($entry->rule_id, (int) $entry->page, (string) $entry->record_type);

        return $isReadable ? $data : array_diff_key($data, ['why' => true]);
    }

    /** Whether everything the rule looks at, on records of a type and behind them, may be seen. */
    public function mayReadRule(int $rule, int $page, string $on): bool
    {
        return $this->inSight->isEverything() || ($this->readable["{$rule} {$page} {$on}"] ??= $this->reads($rule, $page, $on));
    }

    private function reads(int $rule, int $page, string $on): bool
    {
        $file = PublishedPage::query()->where('rule_id', $rule)->where('number', $page)->first()?->file;
        $reader = new RuleReader($this->openTo($on), $this->directory, $this->company->zone());

        return $file !== null && $reader->read($file)->problems === [];
    }

    /** The fields and types of which they see every value there is, and besides those of one type, of which they see a record. */
    private function openTo(string $on): Schema
    {
        $types = [];
        foreach ($this->inSight->schema()->types as $name => $type) {
            $isOpen = $this->inSight->isUnbounded(Act::Read, $name);
            if ($isOpen || $name === $on) {
                $types[$name] = $type->without(array_values(array_map(
                    static fn (Field $field): string => $field->name,
                    array_filter($type->fields, fn (Field $field): bool => $field->type === FieldType::Reference
                        && ! $this->inSight->isUnbounded(Act::Read, (string) $field->target)),
                )));
            }
        }

        return new Schema($types);
    }

    private function seesOutcome(Schema $schema, mixed $did): bool
    {
        if (! is_array($did)) {
            return false;
        }
        [$type, $field] = [$did['type'] ?? null, $did['field'] ?? null];
        if (is_string($type) && is_string($field) && ! self::knows($schema, $type, $field)) {
            return false;
        }
        foreach (['on', 'record'] as $name) {
            $about = $did[$name] ?? null;
            if (is_array($about) && ! $this->gate->sees((string) ($about['type'] ?? ''), (int) ($about['id'] ?? 0))) {
                return false;
            }
        }

        return true;
    }

    private static function knows(Schema $schema, string $type, string $field): bool
    {
        return $schema->type($type)?->field($field) !== null;
    }
}
