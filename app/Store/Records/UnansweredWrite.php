<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Store\DomainError;
use App\Store\Rules\CachingRuleBook;
use App\Store\Rules\StoredRuleBook;
use App\Store\Sql\Lock;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Record\Change;

/**
 * The one way to write a record without a rule's answer: what leads back to a state that rules have answered before. A lock keeps it out
 * as it does a save, and the parent whose children a rule counts is held as the engine holds it, so that nobody counts meanwhile.
 */
final readonly class UnansweredWrite
{
    public function __construct(
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private RecordWriter $records,
        private RecordLock $lock,
    ) {
    }

    /**
     * @param  Change  $change  of a record that is kept from others
     *
     * @throws DomainError
     */
    public function write(Change $change): void
    {
        $type = $this->schemas->schema()->types[$change->record()->type];
        if ($change->before !== null) {
            $this->lock->mustBeOpen($type, $change->before->id);
        }
        foreach ((new CachingRuleBook($this->rules))->readOver($change) as $by) {
            $target = $this->schemas->schema()->type($type->field($by)->target ?? '');
            foreach (array_filter([$change->before, $change->after]) as $record) {
                $parent = $record->value($by);
                if ($target !== null && is_int($parent)) {
                    RecordSql::record($target, $parent, Lock::WRITE);
                }
            }
        }
        $this->records->write([[$change->before, $change->after]], $change->at);
    }
}
