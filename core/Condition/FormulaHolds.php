<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Formula\Formula;
use VividLedger\Formula\FormulaType;
use VividLedger\Record\Display;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Words\Words;

/** A formula that comes out true. */
final readonly class FormulaHolds implements Spoken, Statement
{
    public function __construct(private Formula $formula)
    {
    }

    public static function shapes(): array
    {
        return [Shape::of('formula')->says('the formula {formula}')->orSaid('the formula {formula} (holds|is true)')
            ->slot('formula', new Quoted)];
    }

    public static function offers(Context $context, Node $node): array
    {
        return [new Offer('a formula…', ['kind' => 'formula'], 'More')];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $formula = FormulaReader::read($context, $node->child('formula'));
        if ($formula === null) {
            return null;
        }
        if ($formula->term->type !== FormulaType::Truth) {
            return $context->problem(
                $node->child('formula')->at,
                'wrong_type',
                Words::say('A condition comes out true or false; this gives {type}.', type: $formula->term->type->value),
                1,
            );
        }

        return new self($formula);
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
