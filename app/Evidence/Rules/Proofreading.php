<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Evidence\Rehearsal\RecordCensus;
use App\Store\Types\SchemaStore;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Rule;
use VividLedger\Shape\Node;

/** Reads a rule among those in force and the records there are. */
final readonly class Proofreading
{
    public function __construct(
        private SchemaStore $schemas,
        private RulesInForce $rules,
        private RecordCensus $census,
    ) {
    }

    /**
     * @param  array<mixed>  $file  as the rule was read from it
     * @return list<Remark>
     */
    public function remarks(Rule $rule, array $file): array
    {
        $all = $this->rules->with($rule);
        $place = array_search($rule, $all, true);
        $others = array_values(array_filter($all, static fn (Rule $other): bool => $other !== $rule));

        return Proofreader::read(
            new RuleAmongOthers(
                rule: $rule, file: new Node($file), schema: $this->schemas->schema(), others: $others, census: $this->census,
                position: (int) $place,
            ),
        );
    }
}
