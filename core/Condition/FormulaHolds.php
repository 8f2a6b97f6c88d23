<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Formula\Formula;
use VividLedger\Record\Display;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;

/** A formula that comes out true. */
final readonly class FormulaHolds implements Statement
{
    public function __construct(private Formula $formula)
    {
    }

    public static function shape(): Shape
    {
        return Shape::of('formula')->says('the formula {formula}')->orSaid('the formula {formula} (holds|is true)')
            ->slot('formula', new Quoted);
    }

    public function compile(): Closure
    {
        return $this->formula->holds(...);
    }

    public function query(QueryWriter $writer): mixed
    {
        return $writer->formula($this->formula);
    }

    public function explain(View $view, Display $display): Finding
    {
        $held = $this->formula->holds($view);
        $seen = [];
        foreach ($this->formula->term->paths() as $path) {
            $seen[$path->label()] = "{$path->label()}: {$display->of($path->field, $view->value($path))}";
        }
        if ($this->formula->trouble !== null) {
            $seen[] = $this->formula->trouble;
        }

        return new Finding($this->formula->text, $held, implode(', ', $seen));
    }

    public function paths(): array
    {
        return $this->formula->term->paths();
    }

    public function atom(): Atom
    {
        return Atom::free($this);
    }
}
