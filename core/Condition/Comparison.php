<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Engine\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Path;

/** A field, an operator, and what the field is compared with: "Priority is Urgent". */
final readonly class Comparison implements Condition
{
    /**
     * @param  list<string|int|bool>  $operands  as many as the operator's operand asks for, normalised for the field
     * @param  string  $text  the condition as a sentence
     */
    public function __construct(
        public Path $path,
        public Operator $operator,
        public array $operands,
        public string $text,
    ) {
    }

    public function compile(): Closure
    {
        $test = $this->operator->test($this->path->field, $this->operands);
        if ($this->path->hops !== []) {
            $path = $this->path;

            return static fn (View $view): bool => $test($view->value($path));
        }
        $name = $this->path->field->name;

        // The record's own field is what nearly every condition reads, so it takes the shortest way.
        return static fn (View $view): bool => $test($view->record->values[$name] ?? null);
    }

    public function query(QueryWriter $writer): mixed
    {
        return $this->operator->query($writer, $this->path, $this->operands);
    }

    public function explain(View $view, Display $display): Finding
    {
        $seen = $view->value($this->path);
        $test = $this->operator->test($this->path->field, $this->operands);

        return new Finding($this->text, $test($seen), $display->of($this->path->field, $seen));
    }

    public function paths(): array
    {
        return [$this->path];
    }
}
