<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\PersonOperator;
use VividLedger\Facts\Total;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;

/** A field, an operator, and what the field is compared with: "Priority is Urgent". */
final readonly class Comparison implements Statement
{
    /**
     * @param  list<string|int|bool|Given>  $operands  as many as the operator's operand asks for, normalised for the field
     * @param  string  $text  the condition as a sentence
     */
    public function __construct(
        public Readable $left,
        public Operator $operator,
        public array $operands,
        public string $text,
    ) {
    }

    public function compile(): Closure
    {
        $left = $this->left;
        $given = $this->operands[0] ?? null;
        if ($given instanceof Given) {
            return $this->withGiven($given);
        }
        if ($this->operator instanceof ChangeOperator) {
            return $this->operator->judge($left->field(), $this->values());
        }
        if ($this->operator instanceof PersonOperator) {
            return $this->operator->judgePerson($left, $this->values());
        }
        $test = $this->operator->test($left->field(), $this->values());
        if (! $left instanceof Path || $left->hops !== []) {
            return static fn (View $view): bool => $test($view->value($left));
        }
        $name = $left->field->name;

        // The record's own field is what nearly every condition reads, so it takes the shortest way.
        return static fn (View $view): bool => $test($view->record->values[$name] ?? null);
    }

    public function query(QueryWriter $writer): mixed
    {
        return $this->operator->query($writer, $this->left, $this->operands);
    }

    public function explain(View $view, Display $display): Finding
    {
        $field = $this->left->field();
        $given = $this->operands[0] ?? null;
        $seen = $this->operator instanceof ChangeOperator && $view->ownChange() !== null
            ? "{$display->of($field, $view->ownChange()->before?->value($field->name))} → {$display->of($field, $view->value($this->left))}"
            : $display->of($field, $view->value($this->left));
        if ($given instanceof Given) {
            $seen .= ', compared with '.$display->of($field, $given->value($view, $field));
        }

        return new Finding($this->text, ($this->compile())($view), $seen);
    }

    public function paths(): array
    {
        $given = $this->operands[0] ?? null;

        return [
            ...($this->left instanceof Path ? [$this->left] : []),
            ...($this->left instanceof Total && $this->left->from !== null ? [$this->left->from] : []),
            ...($given instanceof Given ? $given->paths() : []),
        ];
    }

    public function atom(): Atom
    {
        $path = $this->left instanceof Path ? $this->left : null;
        $operator = $this->operator;
        // Fields may share a label, so the text alone does not say which one is meant.
        $free = "{$path?->name()} {$operator->kind()} {$this->text}";
        $isFixed = count($this->values()) === count($this->operands);
        $turns = $isFixed ? $operator->turns($this->values()) : [];
        if ($path === null || ! $isFixed || $operator instanceof ChangeOperator || $operator instanceof PersonOperator) {
            return new Atom($path, $free, null, $path === null ? null : $operator->ofEmpty(), $turns);
        }

        return new Atom(
            path: $path, free: $free, test: $operator->test($path->field, $this->values()), ofEmpty: null, turns: $turns,
            isToldOfOthers: $operator->isToldOfOthers(),
        );
    }

    /** @return Closure(View): bool */
    private function withGiven(Given $given): Closure
    {
        $left = $this->left;
        $operator = $this->operator;
        $field = $left->field();
        $nothing = $operator->ofNothing() ?? false;

        return static function (View $view) use ($left, $operator, $field, $given, $nothing): bool {
            $value = $given->value($view, $field);

            return $value === null ? $nothing : $operator->test($field, [$value])($view->value($left));
        };
    }

    /** @return list<string|int|bool> */
    private function values(): array
    {
        return array_values(array_filter($this->operands, static fn (string|int|bool|Given $operand): bool => ! $operand instanceof Given));
    }
}
