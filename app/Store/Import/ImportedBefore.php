<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Models\Lists\BulkStatus;
use VividLedger\Import\ColumnGuess;
use VividLedger\Import\Mode;
use VividLedger\Schema\RecordType;

/** What a person chose for the columns of an earlier file: the next of its kind, or the same mended, begins with that. */
final readonly class ImportedBefore
{
    /** So many of their last imports are looked at. */
    private const LOOKED_AT = 20;

    /**
     * @param  array<int, string>  $fields  by the place of the column in the new file
     * @param  array<string, array<string, string>>  $values  what cells were said to mean
     */
    private function __construct(public array $fields, public ?string $key, public Mode $mode, public array $values)
    {
    }

    /** @param  list<string>  $heads  of the new file: all of the earlier one's, and others if need be */
    public static function of(BulkJob $job, array $heads, RecordType $type): ?self
    {
        $places = array_flip($heads);
        $jobs = BulkJob::query()->where(['kind' => BulkKind::Import, 'record_type' => $type->name, 'by_id' => $job->by_id])
            ->whereNot('status', BulkStatus::Draft)->whereKeyNot($job->id)->latest('id')->limit(self::LOOKED_AT)->get();
        foreach ($jobs as $earlier) {
            $plan = ImportPlan::of($earlier);
            if (count($places) !== count($heads) || array_diff($plan->heads, $heads) !== []) {
                continue;
            }
            $fields = [];
            foreach ($plan->fields as $place => $field) {
                if ($field === ColumnGuess::NUMBER || $type->field($field)?->isSettable() === true) {
                    $fields[$places[$plan->heads[$place]]] = $field;
                }
            }
            if ($fields !== [] && ($plan->key === null || in_array($plan->key, $fields, true))) {
                return new self($fields, $plan->key, $plan->mode, $plan->values);
            }
        }

        return null;
    }
}
