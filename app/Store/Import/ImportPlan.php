<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Lists\BulkJob;
use VividLedger\Import\Mode;

/** How the columns of a file become fields, and which records they are about. */
final readonly class ImportPlan
{
    /**
     * @param  list<string>  $heads
     * @param  array<int, string>  $fields  by the place of the column; "number" for the record's own
     * @param  ?string  $key  the field by which a record is known; null where every row is a new one
     * @param  array<int, array{monthFirst: bool, decimalComma: bool}>  $conventions  by the place of the column
     * @param  array<string, array<string, string>>  $values  what is read instead of a cell: by field, and by the cell in small letters
     */
    public function __construct(
        public string $name,
        public string $encoding,
        public string $delimiter,
        public int $skips,
        public array $heads = [],
        public array $fields = [],
        public ?string $key = null,
        public Mode $mode = Mode::Create,
        public array $conventions = [],
        public int $begins = 0,
        public bool $endsWithReturns = false,
        public array $values = [],
    ) {
    }

    public static function of(BulkJob $job): self
    {
        $spec = $job->spec;

        return new self(
            name: (string) ($spec['name'] ?? ''), encoding: (string) ($spec['encoding'] ?? 'UTF-8'),
            delimiter: (string) ($spec['delimiter'] ?? ','), skips: (int) ($spec['skips'] ?? 0), heads: $spec['heads'] ?? [],
            fields: $spec['fields'] ?? [], key: $spec['key'] ?? null, mode: Mode::from($spec['mode'] ?? 'create'),
            conventions: $spec['conventions'] ?? [], begins: (int) ($spec['begins'] ?? 0),
            endsWithReturns: (bool) ($spec['endsWithReturns'] ?? false), values: $spec['values'] ?? [],
        );
    }

    /** What is read of a cell: what it was said to mean, or else what stands there. */
    public function meant(string $field, string $cell): string
    {
        return $this->values[$field][self::folded($cell)] ?? $cell;
    }

    public static function folded(string $cell): string
    {
        return mb_strtolower(trim($cell, " \t\u{A0}"));
    }

    /** Which column the records are known by; null where there is none. */
    public function keyColumn(): ?int
    {
        $place = $this->key === null ? false : array_search($this->key, $this->fields, true);

        return $place === false ? null : $place;
    }
}
