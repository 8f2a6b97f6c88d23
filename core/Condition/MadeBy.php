<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\People\PersonExpression;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Display;
use VividLedger\Shape\Shape;

/** Who or what made the change: a person, a rule, an import, the API, or whomever a person expression finds. */
final readonly class MadeBy implements Statement
{
    public const WAYS = ['person' => 'a person', 'rule' => 'a rule', 'import' => 'an import', 'api' => 'the API'];

    public function __construct(
        private ?CauseKind $way,
        private ?PersonExpression $person,
        private bool $negated,
        private string $text,
    ) {
    }

    public static function shape(): Shape
    {
        return Shape::of('made_by')->says('the change was made by {by}')->orSaid(
            '(the change is|it was|it is|the change was|) (made|changed|done|edited|saved) by {by}', '{by} (made|did) the change',
            '{by} changed it',
        )->slot('by', new DoerSlot);
    }

    public static function opposite(): Shape
    {
        return Shape::of('not_made_by')->says('the change was not made by {by}')->orSaid(
            '(the change is|it was|it is|the change was) (not made|not changed|not done|not edited|not saved) by {by}',
            '(the change|it) wasn’t (made|done|changed) by {by}', '{by} did not (make the change|change it)',
        )->slot('by', new DoerSlot);
    }

    public function compile(): Closure
    {
        return fn (View $view): bool => $view->change !== null && $this->isBy($view) !== $this->negated;
    }

    /** A query has no change, and so nobody made it. */
    public function query(QueryWriter $writer): mixed
    {
        return $writer->never();
    }

    public function explain(View $view, Display $display): Finding
    {
        $change = $view->change;
        $seen = match (true) {
            $change === null => 'no change',
            $change->cause === CauseKind::Rule => self::WAYS['rule'],
            default => self::WAYS[$change->cause->value].($change->actor === null ? '' : ', '.($view->facts->person($change->actor)->name
                ?? 'somebody')),
        };

        return new Finding($this->text, ($this->compile())($view), $seen);
    }

    public function paths(): array
    {
        return [];
    }

    private function isBy(View $view): bool
    {
        if ($this->way !== null) {
            return $view->change?->cause === $this->way;
        }
        $found = $this->person?->find($view)->person;

        return $found !== null && $view->change?->cause !== CauseKind::Rule && $view->change?->actor === $found->id;
    }

    public function atom(): Atom
    {
        return Atom::free($this);
    }
}
