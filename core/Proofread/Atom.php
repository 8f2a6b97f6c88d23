<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

use Closure;
use VividLedger\Condition\Comparison;
use VividLedger\Condition\Condition;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Condition\Operator\Negated;
use VividLedger\Condition\Operator\PersonOperator;
use VividLedger\Condition\SpanComparison;
use VividLedger\Schema\Path;

/**
 * A condition that has no parts, as reasoning sees it: a test of the value at one path, or a statement of which nothing is
 * known but that it holds or does not.
 */
final readonly class Atom
{
    /**
     * @param  ?string  $path  name of the path it looks at; null when none
     * @param  string  $free  names its truth where the value does not decide it; two atoms of one text are true together
     * @param  ?Closure(string|int|bool|null): bool  $test  null when the value alone never decides
     * @param  ?bool  $ofEmpty  its answer for an empty value, where that is certain
     */
    private function __construct(
        public ?string $path,
        public string $free,
        private ?Closure $test,
        private ?bool $ofEmpty,
        private bool $isFuzzy,
    ) {
    }

    public static function of(Condition $condition): self
    {
        if ($condition instanceof Comparison) {
            $path = $condition->left instanceof Path ? $condition->left : null;
            $operator = $condition->operator;
            // Fields may share a label, so the text alone does not say which one is meant.
            $free = "{$path?->name()} {$operator->kind()} {$condition->text}";
            $isFixed = array_filter($condition->operands, static fn (mixed $operand): bool => $operand instanceof Given) === [];
            if ($path !== null && $isFixed && ! $operator instanceof ChangeOperator && ! $operator instanceof PersonOperator) {
                $operands = array_values(array_filter(
                    $condition->operands,
                    static fn (mixed $operand): bool => ! $operand instanceof Given,
                ));
                $isFuzzy = $path->field->type->isText() && in_array($operator->kind(), ['contains', 'not_contains', 'starts_with'], true);

                return new self($path->name(), $free, $operator->test($path->field, $operands), null, $isFuzzy);
            }

            return new self($path?->name(), $free, null, match (true) {
                $path === null, $operator instanceof ChangeOperator => null,
                $operator instanceof PersonOperator => str_starts_with($operator->kind(), 'not_'),
                default => $operator instanceof Negated,
            }, false);
        }
        if ($condition instanceof SpanComparison) {
            $path = $condition->paths()[0] ?? null;

            return new self($path?->name(), "{$path?->name()} {$condition->text}", null, $path === null ? null : false, false);
        }

        // Formulas, events and who made the change: the object is the statement.
        return new self(null, $condition::class.'#'.spl_object_id($condition), null, null, false);
    }

    /** @return ?bool null when the value does not decide it */
    public function holds(Region $region): ?bool
    {
        if ($region->value === null && $this->ofEmpty !== null) {
            return $this->ofEmpty;
        }
        if ($this->test === null || ($region->isOtherText && $this->isFuzzy)) {
            return null;
        }

        return ($this->test)($region->value);
    }
}
