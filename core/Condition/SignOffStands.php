<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Record\WaitedSort;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/**
 * How the latest sign-off of the record stands, or the latest that a line of a certain name asked for. Where none was ever asked for
 * it stands in no way, and so "is not" holds.
 */
final readonly class SignOffStands implements Spoken, Statement
{
    /** How it can stand, and how each reads. */
    private const STATUSES = [
        'waiting' => 'open', 'agreed' => 'agreed', 'declined' => 'declined', 'timed_out' => 'timed out', 'withdrawn' => 'withdrawn',
        'stopped' => 'stopped',
    ];

    /** @param  string  $called  name of the line that asks for it; empty for whichever was the latest */
    public function __construct(
        private string $type,
        private string $status,
        private bool $negated,
        private string $text,
        private string $called = '',
    ) {
    }

    public static function shapes(): array
    {
        $status = Labels::of(array_flip(self::STATUSES), [
            'approved' => 'agreed', 'signed off' => 'agreed', 'rejected' => 'declined', 'refused' => 'declined', 'pending' => 'waiting',
            'waiting' => 'waiting', 'out of time' => 'timed_out',
        ]);

        return [
            Shape::of('sign_off_is')->says('the sign-off {called} is {status}')->says('its sign-off is {status}')->orSaid(
                '(the |its |)(sign-off|sign off|approval) {called} (is|has|has been|was|is still|still is) {status}',
                '(its|the|{}’s) (sign-off|sign off|approval) (is|has|has been|was|is still|still is) {status}',
                '(the sign-off|the approval) (of|for|on) {} (is|has|has been|was|is still) {status}',
            )->orSaidWith(['status' => 'waiting'], '[it ](waits|is waiting) for (a|its|the) (sign-off|sign off|approval)')
                ->slot('', new ItsType)->slot('called', self::name())->slot('status', $status),
            Shape::of('sign_off_is_not')->says('the sign-off {called} is not {status}')->says('its sign-off is not {status}')->orSaid(
                '(the |its |)(sign-off|sign off|approval) {called} (is not|isn’t|has not|has not been|hasn’t|was not) {status}',
                '(its|the|{}’s) (sign-off|sign off|approval) (is not|isn’t|has not|has not been|hasn’t|was not) {status}',
                '(the sign-off|the approval) (of|for|on) {} (is not|isn’t|has not|has not been|was not) {status}',
            )->slot('', new ItsType)->slot('called', self::name())->slot('status', $status),
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
        $called = self::called($context, $node);
        if ($called === null) {
            return null;
        }
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

        return new self($context->type->name, $status, $negated, $row->text(), $called);
    }

    /** @return ?string which sign-off is meant; null when its name cannot be one */
    private static function called(Context $context, Node $node): ?string
    {
        $at = $node->child('called');
        $called = $at->isMissing() ? '' : $at->text();
        $context->word($called === '' ? 'its sign-off' : 'the sign-off', WordRole::Field, $node->child('field')->at,
            Subjects::chooser($context, $node));
        $lines = $context->sheet->waitables;
        $offers = static fn (): array => [
            new Offer('the latest, whichever it is', null),
            ...array_map(static fn (string $key): Offer => new Offer("“{$key}”", $key), $lines->named(WaitedSort::SignOff)),
        ];
        if ($called === '' && $lines->named(WaitedSort::SignOff) !== []) {
            $context->more('+ which one', $at->at, Editor::choose('Which sign-off', $offers));
        } elseif ($called !== '') {
            $context->choice("“{$called}”", WordRole::Value, $at->at, $offers, 'Which sign-off');
        }
        if ($called === null || ($called !== '' && preg_match('/'.Json::NAME['pattern'].'/D', $called) !== 1)) {
            return $context->problem($at->at, 'wrong_type', Words::say('Choose the sign-off by the name of the line that asks for it.'));
        }

        return $called;
    }

    private static function name(): Quoted
    {
        return new Quoted(40, pattern: Json::NAME['pattern']);
    }

    public function compile(): Closure
    {
        return fn (View $view): bool => ($this->seen($view) === $this->status) !== $this->negated;
    }

    public function query(QueryWriter $writer): mixed
    {
        $stands = $writer->signOffStands($this->type, $this->status, $this->called);

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
        return $view->facts->signOffOn($view->record->type, $view->record->id, $this->called)?->status;
    }
}
