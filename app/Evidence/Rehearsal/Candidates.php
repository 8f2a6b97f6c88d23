<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Store\Lists\RecordList;
use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\None;
use VividLedger\Condition\Tree;
use VividLedger\Listing\Sort;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;

/** Finds records that are worth rehearsing a rule on. */
final readonly class Candidates
{
    public function __construct(private RecordList $list)
    {
    }

    /** The record that was changed last among those that meet the conditions. */
    public function matched(RecordType $type, Rule $rule): ?Record
    {
        return $this->last($type, $rule->condition);
    }

    /** One that meets all conditions but one. */
    public function nearly(RecordType $type, Rule $rule): ?Record
    {
        $parts = Tree::together($rule->condition);
        if ($parts === []) {
            return $this->last($type, new None([$rule->condition]));
        }
        foreach ($parts as $left => $part) {
            $others = array_values(array_filter(
                $parts,
                static fn (int $place): bool => $place !== $left,
                ARRAY_FILTER_USE_KEY,
            ));
            $found = $this->last($type, new All([...$others, new None([$part])]));
            if ($found !== null) {
                return $found;
            }
        }

        return null;
    }

    public function any(RecordType $type): ?Record
    {
        return $this->last($type, new All([]));
    }

    private function last(RecordType $type, Condition $condition): ?Record
    {
        $latest = Sort::byField($type->fields['updated_at'], descending: true);

        return $this->list->page($type, $condition, '', [$latest], 1, 1, counted: false)[0][0] ?? null;
    }
}
