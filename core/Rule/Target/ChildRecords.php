<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Condition\ChildrenRead;
use VividLedger\Facts\Children;
use VividLedger\Facts\Total;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;

/** Every record that refers to this one and meets the conditions. */
final readonly class ChildRecords implements Target
{
    /** A rule that means more than these belongs on the children. */
    public const MOST = 2000;

    public function __construct(private Children $children, private RecordType $type)
    {
    }

    public function type(): RecordType
    {
        return $this->type;
    }

    public function records(ActionContext $performance): array
    {
        $records = [];
        $children = $performance->facts->children($this->children, $performance->record->id, self::MOST);
        $of = count($children) < self::MOST ? 0 : (int) $performance->facts->total(
            Total::countOf($this->children),
            $performance->record->id,
            [],
        );
        if ($of > self::MOST) {
            $performance->cutOff($this->type->plural, self::MOST, $of);
        }
        foreach ($children as $record) {
            $current = $performance->toChange($record);
            // It may have changed between being found and being kept.
            if ($current !== null && $this->children->has($current, $performance->record->id, $performance->facts)) {
                $records[] = $current;
            }
        }

        return $records;
    }

    public function whyNone(): ?string
    {
        return null;
    }

    public function childrenRead(): array
    {
        return [ChildrenRead::of($this->children)];
    }

    public function isOwn(): bool
    {
        return false;
    }
}
