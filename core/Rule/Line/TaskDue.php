<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;
use VividLedger\Schema\Path;
use VividLedger\Time\Amount;
use VividLedger\Time\LocalTime;
use VividLedger\Time\Unit;

/** When a task falls due: so long after now, or so long before or after a date of this or a related record. */
final readonly class TaskDue
{
    /** What is due on a day is late when the working day is over. */
    private const END_OF_DAY = '17:00:00';

    private function __construct(private Amount $amount, private ?Path $from)
    {
    }

    /** @return self|false|null null for no set time, false when it cannot be read */
    public static function read(Context $context, Node $node): self|false|null
    {
        if ($node->raw === null) {
            $context->word('at no set time', WordRole::Value, $node->at, Edit::Due);

            return null;
        }
        $amount = Amount::read($node);
        $name = $node->child('from')->text();
        $from = $name === null ? null : $context->schema->path($context->type, $name);
        if ($name !== null && ($from === null || ! $from->field->type->isMoment())) {
            $context->gap($name, $node->at, Edit::Due, 'unknown_field', "{$context->type->label} has no date ‘{$name}’ to count from.");

            return false;
        }
        if ($amount === null || ($from === null && $amount->amount < 0)) {
            $far = is_int($node->child('amount')->raw) && Unit::tryFrom($node->child('unit')->text() ?? '') !== null && $node->child('amount')->raw >= 0;
            $context->gap('choose when', $node->at, Edit::Due, $far ? 'out_of_range' : 'wrong_type', $far ? 'A task can be due at most ten years ahead.' : 'Give a whole number and a unit, such as 2 days.');

            return false;
        }
        $length = $amount->unit->label(abs($amount->amount));
        $said = match (true) {
            $from === null => $amount->amount === 0 ? 'at once' : "{$length} later",
            $amount->amount === 0 => "on {$from->label()}",
            default => $length.($amount->amount < 0 ? ' before ' : ' after ').$from->label(),
        };
        $context->word($said, WordRole::Value, $node->at, Edit::Due);

        return new self($amount, $from);
    }

    /** @return ?\DateTimeImmutable null when the date to count from is empty */
    public function at(Performance $performance): ?\DateTimeImmutable
    {
        if ($this->from === null) {
            return $this->amount->from($performance->now, $performance->zone);
        }
        $base = $performance->view()->value($this->from);
        if (! is_string($base)) {
            return null;
        }
        if (strlen($base) > 10) {
            return $this->amount->from(new \DateTimeImmutable($base), $performance->zone);
        }
        [$year, $month, $day] = array_map(intval(...), explode('-', $base));

        return $this->amount->from(LocalTime::instant($year, $month, $day, self::END_OF_DAY, $performance->zone), $performance->zone);
    }

    public function emptyBase(): string
    {
        return $this->from?->label() ?? '';
    }
}
