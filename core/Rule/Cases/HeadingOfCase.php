<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\ConditionSlot;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;

/** What headings have in common: the words before their condition, whether they stand within a case, and that they do nothing. */
trait HeadingOfCase
{
    final private function __construct(private readonly ?Condition $condition, private readonly string $said)
    {
    }

    /** One that something has to hold for. */
    private static function asking(Context $context, Node $node, string $words): ?self
    {
        self::opened($context, $node, $words);
        $that = $node->child('that');
        $begun = is_array($that->raw) && $that->raw !== [] ? $that : new Node(['kind' => 'all', 'of' => []], $that->at);
        $above = count($context->sheet->rows);
        $condition = ConditionReader::read($context, $begun, '', 1);
        self::inOneRow($context, $begun, $above);

        return $condition === null ? null : new self($condition, "{$words} {$context->said(new ConditionSlot(true), $that->raw)}");
    }

    /** A single condition stands in the row of the heading: "If Discount is over 20 %". */
    private static function inOneRow(Context $context, Node $that, int $above): void
    {
        $rows = $context->sheet->rows;
        $of = $that->child('of')->items();
        $isOne = $that->kind() !== 'all' ? count($rows) === $above + 1
            : count($of) === 1 && count($rows) === $above + 2 && ! isset(ConditionReader::GROUPS[$of[0]->kind()]);
        if (! $isOne) {
            return;
        }
        array_push($rows[$above - 1]->words, ...$rows[count($rows) - 1]->words);
        $context->sheet->rows = array_slice($rows, 0, $above);
        if ($of !== []) {
            $context->more('+ condition', "{$that->at}/of/1", Editor::begin(new \stdClass));
        }
    }

    /** One that nothing has to hold for. */
    private static function plain(Context $context, Node $node, string $words): self
    {
        self::opened($context, $node, $words);

        return new self(null, $words);
    }

    private static function opened(Context $context, Node $node, string $words): void
    {
        $node->kind();
        $node->child('inner');
        $context->glue($words);
    }

    public function condition(): ?Condition
    {
        return $this->condition;
    }

    public function said(): string
    {
        return $this->said;
    }

    public function perform(ActionContext $performance): void
    {
        throw new \LogicException('A heading says which lines are done, and does nothing itself.');
    }
}
