<?php

declare(strict_types=1);

namespace App\Store\Records;

/** One of many records that are saved together. */
final readonly class RowToSave
{
    /**
     * @param  ?int  $id  null for a new record
     * @param  array<array-key, mixed>  $values  raw values by field name
     */
    public function __construct(public ?int $id, public array $values)
    {
    }
}
