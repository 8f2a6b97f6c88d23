<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** One thing that a slip asks. What it takes is what a field takes: that of a record, or one of its own. */
final readonly class Question
{
    /**
     * @param  string  $label  as it is asked
     * @param  Field  $field  says what answers it takes, and how they are shown
     * @param  ?Path  $path  the field that the answer is written to; null where it stands on the slip alone
     * @param  bool  $isNeeded  whether it has to be answered
     * @param  ?ShownIf  $onlyIf  what has to be answered before for it to be asked at all
     * @param  bool  $isFile  whether the answer is a file, which lands on the record
     */
    public function __construct(
        public string $label,
        public Field $field,
        public ?Path $path = null,
        public bool $isNeeded = false,
        public ?ShownIf $onlyIf = null,
        public bool $isFile = false,
    ) {
    }

    /** Whether lines can wait for one of its answers. */
    public function isChoice(): bool
    {
        return $this->field->type === FieldType::Choice;
    }

    /** @return list<string> what can be answered, as it reads */
    public function choices(): array
    {
        return match ($this->field->type) {
            FieldType::Choice => array_values(array_map(static fn ($choice): string => $choice->label, array_filter(
                $this->field->choices,
                static fn ($choice): bool => ! $choice->isRetired,
            ))),
            FieldType::Tick => [self::TICKED],
            default => [],
        };
    }

    /** How a ticked box reads as an answer. */
    public const TICKED = 'Yes';
}
