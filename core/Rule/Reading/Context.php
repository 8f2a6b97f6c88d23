<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

use VividLedger\People\Directory;
use VividLedger\Record\Display;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/**
 * What one reading of a rule gathers on its way: the rows of its page and its problems. Reading a part and wording it
 * happen in one pass, so that a half-written rule still reads as a sentence with gaps.
 */
final class Context
{
    /** @var list<Row> */
    public array $rows = [];

    /** @var list<Problem> */
    public array $problems = [];

    public readonly Display $display;

    public function __construct(
        public readonly Schema $schema,
        public readonly Directory $directory,
        public readonly RecordType $type,
        \DateTimeZone $zone,
    ) {
        $this->display = new Display($directory, $zone);
    }

    public function row(Part $part, Node $node, string $margin = '', int $depth = 0): Row
    {
        return $this->rows[] = new Row($part, $node->at, $margin, $depth);
    }

    public function glue(string $text): void
    {
        $this->add(new Word($text));
    }

    public function word(string $text, WordRole $role, string $at, ?Edit $edit): void
    {
        $this->add(new Word($text, $role, $at, $edit));
    }

    /** A gap in the sentence, with what belongs there and why the rule is not finished without it. */
    public function gap(string $text, string $at, ?Edit $edit, string $code, string $message): null
    {
        $this->add(new Word($text, WordRole::Missing, $at, $edit));

        return $this->problem($at, $code, $message);
    }

    public function problem(string $at, string $code, string $message): null
    {
        $this->problems[] = new Problem($at, $code, $message);

        return null;
    }

    private function add(Word $word): void
    {
        $row = end($this->rows);
        if ($row === false) {
            throw new \LogicException('A word needs a row to stand in.');
        }
        $row->words[] = $word;
    }
}
