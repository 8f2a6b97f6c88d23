<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Line\Writes;
use VividLedger\Rule\Line\Written;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Node;

/** A rule under the proofreader's eyes: as it is written, as it reads, and among which others it stands. */
final readonly class RuleAmongOthers
{
    /** @param  list<Rule>  $others  in force, in order, without this one */
    public function __construct(
        public Rule $rule,
        public Node $file,
        public Schema $schema,
        public array $others,
        public ?Census $census = null,
        public int $position = PHP_INT_MAX,
    ) {
    }

    public function type(): RecordType
    {
        return $this->schema->types[$this->rule->on];
    }

    public function line(Placed $placed): Node
    {
        return $this->file->child('lines')->items()[$placed->place];
    }

    /** @return list<Written> the fields that a rule writes at once or later */
    public function written(Rule $rule): array
    {
        $written = [];
        foreach ($rule->lines as $placed) {
            array_push($written, ...$this->writtenBy($rule, $placed));
        }

        return $written;
    }

    /** @return list<Written> */
    public function writtenBy(Rule $rule, Placed $placed): array
    {
        return $placed->line instanceof Writes ? $placed->line->writes($this->schema->types[$rule->on]) : [];
    }
}
