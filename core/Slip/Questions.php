<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Also;
use VividLedger\Slip\Question\AskChoice;
use VividLedger\Slip\Question\AskDate;
use VividLedger\Slip\Question\AskField;
use VividLedger\Slip\Question\AskFile;
use VividLedger\Slip\Question\AskNumber;
use VividLedger\Slip\Question\AskSignature;
use VividLedger\Slip\Question\AskText;
use VividLedger\Slip\Question\AskTick;
use VividLedger\Words\Words;

/** All kinds of question, in the order they are offered. A new kind is a new file and one line here. */
final class Questions
{
    /** @var list<class-string<Asking>> */
    public const ALL = [
        AskChoice::class, AskField::class, AskText::class, AskNumber::class, AskDate::class, AskTick::class, AskFile::class,
        AskSignature::class,
    ];

    public const LABEL = 200;

    public const MOST = 30;

    /** What a new slip begins with. */
    public const BEGUN = ['kind' => 'choice', 'label' => 'Is it done?', 'options' => ['Done', 'Not done'], 'needed' => true];

    /** @return list<class-string<Asking>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /**
     * A shape with what every question can say behind what it asks.
     *
     * @param  string  $says  what it asks, and what answers it takes
     * @param  string  ...$also  other ways to say that
     */
    public static function shape(string $kind, string $says, string ...$also): Shape
    {
        $tail = '[, {needed}][, only if {onlyIf}]';

        return Shape::of($kind)->says($says.$tail)->orSaid(...array_map(static fn (string $one): string => $one.$tail, $also))
            ->slot('needed', new Also('which has to be answered', 'which may be left open'))->slot('onlyIf', new ShownIfSlot);
    }

    public static function read(Context $context, Node $node): ?Question
    {
        foreach (self::all() as $kind) {
            if ($kind::kind() === $node->kind()) {
                $question = $kind::read($context, $node);
                $context->more('other…', $node->at, Editor::choose('This question', static fn (): array => [
                    new Offer('take it out', null), ...self::offers(),
                ]));

                return $question;
            }
        }

        return $context->gap('which question?', $node->at, Editor::choose('Ask', self::offers(...)), 'missing', Words::say(
            'Choose what is asked.',
        ));
    }

    /** @return list<Offer> */
    public static function offers(): array
    {
        return array_map(static fn (string $kind): Offer => new Offer($kind::label(), $kind::shape()->begun()), self::all());
    }
}
