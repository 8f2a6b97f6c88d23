<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Store\Lists\RecordList;
use App\Store\Records\PaperFacts;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\View;
use VividLedger\Listing\Sort;
use VividLedger\People\Who;
use VividLedger\Proofread\Census;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** Looks at the records there are; of very many only at those changed last. */
final class RecordCensus implements Census
{
    private const MOST = 500;

    /** @var array<int, list<Record>> by rule */
    private array $matching = [];

    public function __construct(
        private readonly RecordList $list,
        private readonly SchemaStore $schemas,
        private readonly PaperFacts $facts,
    ) {
    }

    public function withNobody(Rule $rule, Who $person): array
    {
        $type = $this->schemas->schema()->types[$rule->on];
        $latest = Sort::byField($type->fields['updated_at'], descending: true);
        $this->matching[$rule->id] ??= $this->list->page($type, $rule->condition, '', [$latest], 1, self::MOST, counted: false)[0];
        $nobody = 0;
        foreach ($this->matching[$rule->id] as $record) {
            $nobody += $person->find(new View($record, $this->facts))->person === null ? 1 : 0;
        }

        return [$nobody, count($this->matching[$rule->id])];
    }
}
