<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\People\Person;
use App\Models\Records\FieldChange;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\AccessScope;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Record\Display;
use VividLedger\Schema\FieldType;
use VividLedger\SignOff\SignOffStatus;

/** What whoever decides wants to see of a case: what the change was, and what was decided before. */
final readonly class CaseFacts
{
    private const MOST_BEFORE = 5;

    public function __construct(
        private SchemaStore $schemas, private Company $company, private AccessScope $inSight,
    ) {
    }

    /**
     * @param  ?Person  $for  who reads it; null for whoever asks
     * @return list<array{label: string, before: string, after: string}> what the change was that asked for it, in words
     */
    public function of(StoredSignOff $kept, ?Person $for = null): array
    {
        return $this->ofMany([$kept], $for === null ? $this->inSight : $this->inSight->of($for))[$kept->id] ?? [];
    }

    /** Whether the change that asked for it made the record. */
    public function isNew(StoredSignOff $kept): bool
    {
        return Entry::query()->find($kept->entry_id)?->cause?->kind === 'created';
    }

    /**
     * @param  list<StoredSignOff>  $all
     * @param  AccessScope  $inSight  of whoever reads it
     * @return array<int, list<array{label: string, before: string, after: string}>> by sign-off
     */
    private function ofMany(array $all, AccessScope $inSight): array
    {
        $causes = Entry::rows()->whereIn('id', array_map(static fn (StoredSignOff $one): int => $one->entry_id, $all))
            ->pluck('cause_id', 'id')->all();
        $fields = FieldChange::query()->whereIn('entry_id', array_filter($causes))->orderBy('id')->get()->groupBy('entry_id');
        $display = Display::spoken(new PeopleStore($this->schemas, $inSight), $this->company->zone());
        $schema = $inSight->schema();
        $facts = [];
        foreach ($all as $one) {
            $type = $schema->type($one->record_type);
            $facts[$one->id] = [];
            foreach ($fields->get($causes[$one->entry_id] ?? 0, []) as $change) {
                $field = $type?->field($change->field);
                if ($field !== null && $change->record_type === $one->record_type) {
                    $facts[$one->id][] = [
                        'label' => $field->label, 'before' => $display->of($field, $change->before),
                        'after' => $display->of($field, $change->after),
                    ];
                }
            }
        }

        return $facts;
    }

    /**
     * What was decided before about records that belong to the same one: the same customer.
     *
     * @return list<StoredSignOff> the latest first
     */
    public function before(StoredSignOff $kept): array
    {
        $type = $this->schemas->schema()->type($kept->record_type);
        $reference = null;
        foreach ($type->fields ?? [] as $field) {
            $reference ??= $field->type === FieldType::Reference ? $field : null;
        }
        if ($type === null || $reference === null) {
            return [];
        }
        $parent = StoredRecord::rowsOf($type)->where('id', $kept->record_id)->value($reference->name);
        if ($parent === null) {
            return [];
        }
        $ids = Columns::ints(StoredRecord::rowsOf($type)->where($reference->name, $parent)->orderByDesc('id')->limit(200)->pluck('id'));

        return array_values(StoredSignOff::query()->with(['seats', 'rule:id,name'])->where('record_type', $kept->record_type)
            ->whereIn('record_id', $ids)->where('id', '<', $kept->id)->where('status', '!=', SignOffStatus::Waiting)->latest('id')
            ->limit(self::MOST_BEFORE)->get()->all());
    }
}
