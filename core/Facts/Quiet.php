<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** What is silent: nothing changed, nothing happened at all, nobody replied, or a field has kept a value. */
final readonly class Quiet
{
    public const REPLY = 'reply';

    public const VALUE = 'value';

    /** Kinds of entry that break a silence. What a rule does to a record is no news of it. */
    private const BREAKS = [
        'change' => ['created', 'changed', 'restored'],
        'activity' => ['created', 'changed', 'restored', 'comment', 'file', 'task_done', 'reply', 'by_hand', 'hook_brought'],
    ];

    /**
     * @param  string  $sort  one of BREAKS, REPLY or VALUE
     * @param  ?Field  $field  the one that has kept its value
     */
    public function __construct(
        public string $sort,
        public ?Field $field = null,
        public string|int|bool|null $value = null,
    ) {
    }

    /** @return list<string> kinds of entry that break it; none where it hangs on replies or on a value */
    public function brokenBy(): array
    {
        return self::BREAKS[$this->sort] ?? [];
    }

    /** Whether the field keeps its value with this one. */
    public function keeps(string|int|bool|null $value): bool
    {
        return $value === $this->value || ($this->field?->type === FieldType::Tick && (bool) $value === $this->value);
    }
}
