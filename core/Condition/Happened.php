<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Record\EventKind;
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

/** What is being answered is an event of a kind: a reply, a comment, a file, a task done. Said of what ends a run. */
final readonly class Happened implements Spoken, Statement
{
    public function __construct(private EventKind $event, private string $text)
    {
    }

    public static function shapes(): array
    {
        return [Shape::of('happened')->says('it {event}')->orSaid('{} {event}', '{event}')
            ->orSaidWith(
                ['event' => EventKind::Reply->value],
                '(the customer|the contact|somebody|someone|anybody|they|the client) (replies|answers|responds|has replied|has '
                    .'answered)[ to {}]',
                '[there is ](a|any|the first) (reply|answer|response)[ (arrives|comes|comes in|to {}|on {}|is there)]',
                '{} is (answered|replied to)', 'it has been answered',
            )
            ->orSaidWith(
                ['event' => EventKind::Comment->value],
                '(somebody|someone|anybody) (comments|writes a comment)[ on {}]', '[there is ]a comment[ (arrives|is written|on {})]',
            )
            ->orSaidWith(
                ['event' => EventKind::File->value], '(somebody|someone|anybody) (adds|attaches|uploads) a file[ to {}]',
                '[there is ]a file[ (arrives|is added|on {})]',
            )
            ->orSaidWith(
                ['event' => EventKind::TaskDone->value],
                '(somebody|someone|anybody) (does|finishes|completes) a task[ (of|on) {}]',
                'a task[ (of|on) {}] is (done|finished|completed)',
            )
            ->slot('', new ItsType)->slot('event', new Labels(
                static fn (): array => array_combine(
                    array_map(static fn (EventKind $event): string => $event->label(), EventKind::ARRIVING),
                    array_map(static fn (EventKind $event): string => $event->value, EventKind::ARRIVING),
                ),
                values: array_map(static fn (EventKind $event): string => $event->value, EventKind::ARRIVING),
            ))];
    }

    public static function offers(Context $context, Node $node): array
    {
        return str_starts_with($node->at, '/until')
            ? [new Offer('something arrives: a reply, a comment…', ['kind' => 'happened', 'event' => 'reply'], 'What happens')] : [];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $at = $node->child('event');
        $event = EventKind::tryFrom($at->text() ?? '');
        $offers = static fn (): array => array_map(
            static fn (EventKind $kind): Offer => new Offer($kind->label(), $kind->value),
            EventKind::ARRIVING,
        );
        $context->word('it', WordRole::Field, $node->child('field')->at, Subjects::chooser($context, $node));
        if ($event === null || ! in_array($event, EventKind::ARRIVING, true)) {
            return $context->gap(
                'choose what arrives', $at->at, Editor::choose('What arrives', $offers), 'missing', Words::say(
                    'Choose what has to happen.',
                ),
            );
        }
        $context->choice($event->label(), WordRole::Value, $at->at, $offers, 'What arrives');

        return new self($event, $row->text());
    }

    public function compile(): Closure
    {
        return fn (View $view): bool => $view->ownChange()?->event?->kind === $this->event;
    }

    /** A query has no change, and so nothing happened. */
    public function query(QueryWriter $writer): mixed
    {
        return $writer->never();
    }

    public function explain(View $view, Display $display): Finding
    {
        return new Finding($this->text, ($this->compile())($view), $view->change?->event?->kind->label() ?? 'no event');
    }

    public function paths(): array
    {
        return [];
    }

    public function atom(): Atom
    {
        return Atom::free($this);
    }
}
