<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\People\PersonExpressions;
use VividLedger\People\Who;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Display;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Who or what made the change: a person, a rule, an import, the API, or whomever a person expression finds. */
final readonly class MadeBy implements Spoken, Statement
{
    public const WAYS = [
        'person' => 'a person', 'rule' => 'a rule', 'import' => 'an import', 'api' => 'the API', 'slip' => 'a reply slip',
        'hook' => 'another system',
    ];

    public function __construct(
        private ?CauseKind $way,
        private ?Who $person,
        private bool $negated,
        private string $text,
    ) {
    }

    public static function shapes(): array
    {
        return [
            Shape::of('made_by')->says('the change was made by {by}')->orSaid(
                '(the change is|it was|it is|the change was|) (made|changed|done|edited|saved) by {by}', '{by} (made|did) the change',
                '{by} changed it',
            )->slot('by', new DoerSlot),
            Shape::of('not_made_by')->says('the change was not made by {by}')->orSaid(
                '(the change is|it was|it is|the change was) (not made|not changed|not done|not edited|not saved) by {by}',
                '(the change|it) wasn’t (made|done|changed) by {by}', '{by} did not (make the change|change it)',
            )->slot('by', new DoerSlot),
        ];
    }

    public static function offers(Context $context, Node $node): array
    {
        return $context->sheet->isOfChange ? [new Offer('who or what made the change', ['kind' => 'made_by'], 'The change')] : [];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $negated = $node->kind() === 'not_made_by';
        $context->word('the change', WordRole::Field, $node->child('field')->at, Subjects::chooser($context, $node));
        $kinds = static fn (): array => [new Offer('was made by', 'made_by'), new Offer('was not made by', 'not_made_by')];
        $context->choice($negated ? 'was not made by' : 'was made by', WordRole::Glue, $node->child('kind')->at, $kinds);
        $by = $node->child('by');
        $way = self::WAYS[$by->text() ?? ''] ?? null;
        $offers = static fn (): array => [
            ...array_map(static fn (string $way, string $label): Offer => new Offer($label, $way), array_keys(self::WAYS), self::WAYS),
            ...PersonExpressions::offers($context),
        ];
        if ($way !== null) {
            $context->choice($way, WordRole::Value, $by->at, $offers, 'By whom');

            return new self(CauseKind::from((string) $by->text()), null, $negated, $row->text());
        }
        $person = is_array($by->raw) ? PersonExpressions::read($context, $by) : null;
        if ($person === null) {
            return $context->gap(
                'choose by whom', $by->at, Editor::choose('By whom', $offers), 'missing', Words::say('Choose who or what made the change.'),
            );
        }
        $context->choice($person->wording(), WordRole::Person, $by->at, $offers, 'By whom');

        return new self(null, $person, $negated, $row->text());
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
