<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** How the latest sign-off of the record stands. Where none was ever asked for it stands in no way, and so "is not" holds. */
final readonly class SignOffStands implements Spoken, Statement
{
    /** How it can stand, and how each reads. */
    private const STATUSES = [
        'waiting' => 'open', 'agreed' => 'agreed', 'declined' => 'declined', 'timed_out' => 'timed out', 'withdrawn' => 'withdrawn',
        'stopped' => 'stopped',
    ];

    public function __construct(private string $type, private string $status, private bool $negated, private string $text)
    {
    }

    public static function shapes(): array
    {
        $status = Labels::of(array_flip(self::STATUSES), [
            'approved' => 'agreed', 'signed off' => 'agreed', 'rejected' => 'declined', 'refused' => 'declined', 'pending' => 'waiting',
            'waiting' => 'waiting', 'out of time' => 'timed_out',
        ]);

        return [
            Shape::of('sign_off_is')->says('its sign-off is {status}')->orSaid(
                '(its|the|{}’s) (sign-off|sign off|approval) (is|has|has been|was|is still|still is) {status}',
                '(the sign-off|the approval) (of|for|on) {} (is|has|has been|was|is still) {status}',
            )->orSaidWith(['status' => 'waiting'], '[it ](waits|is waiting) for (a|its|the) (sign-off|sign off|approval)')
                ->slot('', new ItsType)->slot('status', $status),
            Shape::of('sign_off_is_not')->says('its sign-off is not {status}')->orSaid(
                '(its|the|{}’s) (sign-off|sign off|approval) (is not|isn’t|has not|has not been|hasn’t|was not) {status}',
                '(the sign-off|the approval) (of|for|on) {} (is not|isn’t|has not|has not been|was not) {status}',
            )->slot('', new ItsType)->slot('status', $status),
        ];
    }

    public static function offers(Context $context, Node $node): array
    {
        return [new Offer('how its sign-off stands', ['kind' => 'sign_off_is', 'status' => 'waiting'], 'More')];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $negated = $node->kind() === 'sign_off_is_not';
        $at = $node->child('status');
        $context->word('its sign-off', WordRole::Field, $node->child('field')->at, Subjects::chooser($context, $node));
        $kinds = static fn (): array => [new Offer('is', 'sign_off_is'), new Offer('is not', 'sign_off_is_not')];
        $context->choice($negated ? 'is not' : 'is', WordRole::Glue, $node->child('kind')->at, $kinds);
        $offers = static fn (): array => array_map(
            static fn (string $status, string $label): Offer => new Offer($label, $status),
            array_keys(self::STATUSES),
            self::STATUSES,
        );
        $status = $at->text() ?? '';
        if (! isset(self::STATUSES[$status])) {
            return $context->gap(
                'choose how', $at->at, Editor::choose('How it stands', $offers), 'missing', Words::say('Choose how the sign-off stands.'),
            );
        }
        $context->choice(self::STATUSES[$status], WordRole::Value, $at->at, $offers, 'How it stands');

        return new self($context->type->name, $status, $negated, $row->text());
    }

    public function compile(): Closure
    {
        return fn (View $view): bool => ($this->seen($view) === $this->status) !== $this->negated;
    }

    public function query(QueryWriter $writer): mixed
    {
        $stands = $writer->signOffStands($this->type, $this->status);

        return $this->negated ? $writer->none([$stands]) : $stands;
    }

    public function explain(View $view, Display $display): Finding
    {
        $seen = $this->seen($view);

        return new Finding($this->text, ($this->compile())($view), $seen === null ? 'no sign-off' : self::STATUSES[$seen] ?? $seen);
    }

    public function paths(): array
    {
        return [];
    }

    public function atom(): Atom
    {
        return Atom::free($this);
    }

    private function seen(View $view): ?string
    {
        return $view->facts->signOffOn($view->record->type, $view->record->id)?->status;
    }
}
