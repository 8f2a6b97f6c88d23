<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

/** The first thing that happens in a rehearsal. */
final readonly class Opening
{
    /**
     * @param  array<string, string|int|bool|null>  $was  values of the record before it, by field name, where they differ
     * @param  array<string, string|int|bool|null>  $set  values that are set
     * @param  string  $text  of a comment or reply, or the title of a task
     * @param  ?array{string, int}  $related  type and id of the related record that is created (0) or changed
     * @param  string  $from  who wrote the reply; which hook brought it
     */
    public function __construct(
        public OpeningKind $kind,
        public \DateTimeImmutable $at,
        public array $was = [],
        public array $set = [],
        public string $text = '',
        public ?array $related = null,
        public string $from = '',
    ) {
    }
}
