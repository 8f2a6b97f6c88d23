<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Schema\RecordType;

/** What a reading gathers: the rows of the page, its problems, and what can be chosen at the one place somebody asked about. */
final class Sheet
{
    /** @var list<Row> */
    public array $rows = [];

    /** @var list<Problem> */
    public array $problems = [];

    /** @var list<Offer> */
    public array $offers = [];

    /** @var array<string, RecordType> records that a line makes, by the name later lines use */
    public array $made = [];

    /** @var array<string, string> what the lines are called that other lines can wait for, by key */
    public array $keys = [];

    /** @param  ?string  $asked  the place whose choices are wanted (a JSON Pointer) */
    public function __construct(public readonly ?string $asked = null)
    {
    }
}
