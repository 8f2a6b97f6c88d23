<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use VividLedger\Message\Message;
use VividLedger\Record\Change;
use VividLedger\Record\Record;

/** Rows on their way into the tables beside the entries, gathered so that each table takes few statements. */
final class LedgerRows
{
    /** @var list<array<string, mixed>> */
    public array $guards = [];

    /** @var list<array<string, mixed>> */
    public array $resets = [];

    /** @var list<array<string, mixed>> */
    public array $history = [];

    /** @var list<array<string, mixed>> */
    public array $tasks = [];

    /** @var list<array<string, mixed>> */
    public array $comments = [];

    /** @var list<array{Record, int, bool}> */
    public array $follows = [];

    /** @var list<array{Message, Record, int, int, \DateTimeImmutable}> each with its record, rule, entry and moment */
    public array $messages = [];

    public function __construct(
        public readonly LineRows $lines = new LineRows,
        public readonly SignOffRows $signOffs = new SignOffRows,
    ) {
    }

    /** @param  list<string>  $fields  names of the fields that differ */
    public function history(array $fields, int $entry, Change $change): void
    {
        $record = $change->record();
        foreach ($fields as $name) {
            $this->history[] = [
                'entry_id' => $entry, 'record_type' => $record->type, 'record_id' => $record->id, 'field' => $name,
                'before' => Columns::json($change->before?->value($name)), 'after' => Columns::json($change->after?->value($name)),
            ];
        }
    }
}
